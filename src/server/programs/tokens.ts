import { type AccessToken, MOST_TOKENS, type TokenInput } from '../../contract/index.ts';
import { newToken } from '../platform/digest.ts';
import { TOKEN_MARK } from '../platform/http/bearer.ts';
import { Person } from '../platform/identity/person.ts';
import { AccessTokenRecord } from '../platform/identity/token.ts';
import { invalid, notFound, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';

export async function myTokens(scope: Scope): Promise<{ tokens: AccessToken[] }> {
  const rows = await scope.find(AccessTokenRecord, { personId: scope.me.id });
  return {
    tokens: rows
      .sort((a, b) => b.madeAt.getTime() - a.madeAt.getTime() || (a.id < b.id ? 1 : -1))
      .map(({ id, name, scope: goes, endsOn, madeAt, usedAt }) => ({
        ...{ id, name, scope: goes, endsOn, hasEnded: endsOn !== null && endsOn < scope.today },
        madeAt: scope.moment(madeAt),
        usedAt: scope.moment(usedAt),
      })),
  };
}

/** A new token, told this once. */
export function makeToken(scope: Scope, { name, scope: goes, endsOn }: TokenInput) {
  return scope.transaction(async (tx) => {
    const personId = tx.me.id;
    if (endsOn !== null && endsOn < tx.today)
      throw invalid([{ path: 'endsOn', message: 'That day is over: it would open nothing.' }]);
    // Two at once wait for each other, so that there are never more than may be.
    await tx.locked(Person, personId, 'person');
    if ((await tx.find(AccessTokenRecord, { personId })).length >= MOST_TOKENS)
      throw notNow(`${MOST_TOKENS} tokens are yours already: withdraw one first.`);
    const { token, digest } = newToken(TOKEN_MARK);
    await tx.insert(AccessTokenRecord, {
      ...{ id: tx.newId(), personId, name, scope: goes, digest, endsOn },
      ...{ madeAt: tx.instant, usedAt: null },
    });
    return { token, ...(await myTokens(tx)) };
  });
}

export function withdrawToken(scope: Scope, id: string): Promise<{ tokens: AccessToken[] }> {
  return scope.transaction(async (tx) => {
    const gone = await tx.sql(
      'delete from access_token where workspace_id = $1 and id = $2 and person_id = $3 returning id',
      [id, tx.me.id],
    );
    if (gone.length === 0) throw notFound('token');
    return myTokens(tx);
  });
}
