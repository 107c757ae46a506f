import { useState } from 'react';
import {
  ACCESS_OF_GROUP,
  canHear,
  HEAR_GROUP_WORDS,
  HEAR_GROUPS,
  HEAR_SAYS,
  HEAR_SAYS_WORDS,
  HEAR_SIDE_WORDS,
  HEARD_BY,
  HEARD_BY_WORDS,
  type HearGroup,
  type HearRule,
  type HearRules,
  hearRule,
  KIND_WORDS,
  MESSAGE_KINDS,
  MESSAGE_SIDES,
  type MessageKind,
  type MessageSide,
} from '../../../core/index.ts';
import { ChoiceBlank, Part } from '../../kit/blanks.tsx';

interface HearingPartProps {
  readonly hearing: HearRules;
  readonly onChange: (hearing: HearRules) => void;
}

const SAYS = HEAR_SAYS.map((says) => [says, HEAR_SAYS_WORDS[says]] as const);

/** What people usually hear of, and where, until they choose otherwise; and what they can't turn off. */
export function HearingPart({ hearing, onChange }: HearingPartProps) {
  const [group, setGroup] = useState<HearGroup>('planners');
  const [side, setSide] = useState<MessageSide>('mine');
  const access = ACCESS_OF_GROUP[group];
  const kinds = MESSAGE_KINDS.filter((kind) => canHear(access, side, kind));
  const set = (kind: MessageKind, rule: HearRule) =>
    onChange({ ...hearing, [group]: { ...hearing[group], [side]: { ...hearing[group]?.[side], [kind]: rule } } });
  return (
    <Part name="Messages">
      <ChoiceBlank
        label="Who hears of it"
        value={group}
        options={HEAR_GROUPS.map((one) => [one, HEAR_GROUP_WORDS[one]] as const)}
        onChange={setGroup}
      />{' '}
      {group === 'planners' ? 'hear' : 'hears'} of{' '}
      <ChoiceBlank
        label="Of whose work"
        value={side}
        options={MESSAGE_SIDES.map((one) => [one, HEAR_SIDE_WORDS[one]] as const)}
        onChange={setSide}
      />
      , until they choose otherwise,
      <table className="mt-1 w-full text-row">
        <thead className="text-note text-ink-2">
          <tr>
            <td />
            {HEARD_BY.map((by) => (
              <th key={by} scope="col" className="w-22 text-left font-normal">
                {HEARD_BY_WORDS[by]}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {kinds.map((kind) => {
            const rule = hearRule(hearing, access, side, kind);
            const name = KIND_WORDS[kind].name;
            return (
              <tr key={kind}>
                <th scope="row" className="text-left font-normal">
                  {name}
                </th>
                {HEARD_BY.map((by) => (
                  <td key={by}>
                    {kind === 'named' && by === 'here' ? (
                      <span className="text-ink-2">always</span>
                    ) : (
                      <ChoiceBlank
                        label={`${name}: ${HEARD_BY_WORDS[by]}`}
                        value={rule[by]}
                        options={SAYS}
                        onChange={(says) => set(kind, { ...rule, [by]: says })}
                      />
                    )}
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
      <span className="block text-ink-2">What is always told can’t be turned off by anybody.</span>
    </Part>
  );
}
