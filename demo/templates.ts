import type { Category, Link, Priority } from '../src/contract/index.ts';
import {
  type AskingRules,
  type DefaultRule,
  type Demand,
  type Escalation,
  type Step,
  USUAL_ASKING,
  type VisitRules,
} from '../src/core/index.ts';
import type { PersonKey } from './people.ts';
import { ask, check, own } from './steps.ts';

export const CATEGORIES: readonly Category[] = [
  { name: 'inspection', dot: 'petrol' },
  { name: 'boarding', dot: 'blue' },
  { name: 'money', dot: 'green' },
  { name: 'people', dot: 'ink' },
  { name: 'berths', dot: 'petrolRing' },
  { name: 'fuel dock', dot: 'blueRing' },
  { name: 'lifting', dot: 'greenRing' },
  { name: 'yard', dot: 'inkRing' },
];

export const WORK_TYPES = ['routine', 'arrival', 'departure', 'breakdown'] as const;

/** Boardings are announced seven days before; an arrival is what the holder has asked for. */
export const VISITS: VisitRules = {
  ways: [
    { name: 'by hand', kind: 'hand', onItsWay: { days: 0, unit: 'day' } },
    { name: 'by mail', kind: 'mail', onItsWay: { days: 0, unit: 'day' } },
    { name: 'by post', kind: 'post', onItsWay: { days: 2, unit: 'workingDay' } },
  ],
  terms: [
    {
      type: 'routine',
      period: { days: 7, unit: 'day', countsReceipt: false, countsVisit: true },
      ways: ['by hand', 'by mail', 'by post'],
    },
    {
      type: 'departure',
      period: { days: 5, unit: 'workingDay', countsReceipt: false, countsVisit: true },
      ways: ['by hand', 'by mail'],
    },
  ],
  letterhead: 'Harbour Office, Lee Quay\n01632 960 100',
  answering: 'ring the harbour office on 01632 960 100',
};

/** Clients are asked by the harbour office, which answers in the morning. */
export const ASKING: AskingRules = {
  ...USUAL_ASKING,
  ...{ telephone: '01632 960 118', answered: 'weekdays 09:00 to 14:00' },
};

export interface DemoTemplate {
  readonly key: string;
  readonly name: string;
  readonly summary?: string;
  readonly title: string;
  readonly category: string;
  readonly minutes: number;
  /** Paragraphs, or HTML where the work needs more than that. */
  readonly instructions: string;
  readonly steps: readonly (string | Step)[];
  readonly demands?: readonly Demand[];
  readonly signOff?: DemoSignOff;
  readonly type?: (typeof WORK_TYPES)[number];
  readonly priority?: Priority;
  readonly links?: readonly Link[];
  /** Of whom its work is, where a schedule does not say otherwise. */
  readonly who?: DefaultRule;
  /** Qualifications that it asks for. */
  readonly tickets?: readonly string[];
  /** After how many hours it is told that it is late, where that is not as usual. */
  readonly lateAfter?: Escalation;
  readonly numbered?: boolean;
  readonly finishWithLast?: boolean;
  /** Whose favourite it is. */
  readonly favourite?: boolean;
  /** What people write beside it when there is something to say. */
  readonly notes?: readonly string[];
}

/** People stand in templates by their keys: their ids come with the seed. */
type DemoSignOff = { by: 'manager' } | { by: 'person'; person: PersonKey } | { by: 'role'; role: string };

/** What recurs at Tern Quay. */
export const TEMPLATES = [
  {
    key: 'openingWalk',
    name: 'Opening walk',
    title: 'Opening walk',
    category: 'inspection',
    minutes: 30,
    instructions:
      'Walk all three quays before the gates open. Look at lines, ladders and lights; note anything afloat that should not be.',
    steps: ['Gates and lights', 'Lee Quay', 'Long Quay', 'Gannet Quay', 'Ladders clear', 'Board updated'],
    numbered: true,
    favourite: true,
    notes: [
      'Ladder 4 slippery, sanded.',
      'Light out over gate 2, spare bulb fitted.',
      'Dinghy adrift by the fuel dock, tied to F 3.',
      'Two visitors on the waiting pontoon since night.',
      'Hose left running on Lee Quay, turned off.',
    ],
  },
  {
    key: 'pontoon',
    name: 'Pontoon inspection',
    title: '{asset} inspection',
    category: 'inspection',
    minutes: 60,
    instructions:
      'Walk from the bridgehead outwards. Stop at each joint: look for a gap wider than a thumb, lifted boards and cleats. Tape off what is loose and say so in the note.',
    steps: [
      'Bridgehead and hinge pins',
      'Boards and cleats',
      check(
        'gap',
        'Widest joint gap measured',
        [ask.number('gap-mm', 'mm', 0, 20)],
        'Ruler across the joint, at the lowest board.',
      ),
      'Fire point in date',
      'Ladders and life rings',
    ],
    type: 'routine',
    favourite: true,
    notes: [
      'Cleat 14 turns by hand. Taped off, needs a longer bolt.',
      'Board 31 lifted at the shore end, screwed down.',
      'Weed on the slip, scrubbed.',
      'Ladder 2 loose at the top bolt, tightened.',
      'Fender gone at finger 6, spare fitted.',
    ],
  },
  {
    key: 'firePoints',
    name: 'Fire points',
    title: 'Fire points, {asset}',
    category: 'inspection',
    minutes: 40,
    instructions:
      'Each point has an extinguisher, a blanket, a bucket and a sign. Turn the extinguisher over once so that the powder stays loose.',
    steps: [
      check('expiry', 'Extinguishers in date', [ask.plain('date', 'expiry-next', 'Earliest expiry date')]),
      'Pins and seals',
      'Blankets and buckets',
      'Signs readable',
    ],
    type: 'routine',
    notes: ['Extinguisher 3 below the green, swapped.'],
  },
  {
    key: 'lifeRings',
    name: 'Life-ring count',
    title: 'Life-ring count, {asset}',
    category: 'inspection',
    minutes: 20,
    instructions: 'Count the rings on the quay and their lines. A ring without a line counts as missing.',
    steps: [
      check('count', 'Rings counted', [ask.number('rings', 'rings', 6, null)]),
      'Lines dry and coiled',
      'Missing ones replaced',
    ],
    finishWithLast: true,
    type: 'routine',
    notes: ['One ring gone from post 9, spare hung.'],
  },
  {
    key: 'boarding',
    name: 'Gas and shore power',
    summary: 'the boarding check',
    title: 'Gas and shore power · {asset} · {month}',
    category: 'boarding',
    minutes: 60,
    tickets: ['gas and electrics'],
    instructions: `<h2>Gas</h2><ol><li><p>Shut the bottle valve and read the date stamp on the hose: <strong>older than five years is a fail</strong>.</p></li><li><p>Gauge on the test point, valve open, valve shut, wait five minutes.</p></li></ol><h2>Shore power</h2><p>Then the socket: earth loop, cable, no tape. What is outside its limits is shut off before you leave the boat.</p><table><tbody><tr><th><p>Reading</p></th><th><p>Allowed</p></th><th><p>Outside it</p></th></tr><tr><td><p>Pressure drop</p></td><td><p>0 to 2 mbar</p></td><td><p>bottle off and tagged</p></td></tr><tr><td><p>Earth loop</p></td><td><p>0.05 to 0.80 Ω</p></td><td><p>post off, move the hook-up</p></td></tr></tbody></table>`,
    links: [{ title: 'Where the test points are, by class of boat', url: 'https://ternquay.example/test-points' }],
    steps: [
      check(
        'hose',
        'Bottle off, hose and date stamp',
        [ask.plain('file', 'hose-photo')],
        'The stamp has to be readable in the photo.',
      ),
      check('drop', 'Pressure drop in five minutes', [ask.number('drop-mbar', 'mbar', 0, 2)]),
      check('loop', 'Earth loop at the socket', [ask.number('loop-ohm', 'Ω', 0.05, 0.8)]),
      check('alarms', 'Gas and CO alarms sound', [ask.plain('yesNo', 'alarms-sound')]),
      own('notice', 'Boarding notice to {client}', 10, -7, 'day', { who: 'ayesha', due: '16:00' }),
      check('sent', 'Notice sent', [ask.choice('sent-by', 'post', 'by hand', 'mail')]),
      own('certificate', 'File the certificate of {asset}', 10, 2, 'workingDay', { who: 'oskar' }),
      check('number', 'Certificate number', [ask.plain('text', 'certificate-no')]),
    ],
    signOff: { by: 'person', person: 'bram' },
    type: 'routine',
    favourite: true,
    notes: [
      'Hose dated 2021, told the owner to change it by spring.',
      'Alarm battery low, changed.',
      'Owner aboard, showed him the valve.',
    ],
  },
  {
    key: 'craneCert',
    name: 'Crane certification',
    title: '{asset} certification {year}',
    lateAfter: { own: 1, answering: 1, deputy: 4 },
    category: 'lifting',
    minutes: 300,
    instructions:
      'The examiner needs the crane free for half a day, the test weights on the hard and last year’s certificate.',
    steps: [
      'Test weights ready',
      check('report', 'Examiner’s report in hand', [ask.plain('file', 'report-file')]),
      'Certificate on the cab door',
      own('book', 'Book the examiner for {asset}', 20, -10, 'workingDay', { due: '12:00' }),
      own('weights', 'Test weights to {asset}', 45, -1, 'workingDay', {
        who: 'selwyn',
        note: 'Three of two tonnes and the small one; strops are in the winch house.',
      }),
      own('insurer', 'Report on {asset} to the insurer', 10, 3, 'workingDay', {
        who: 'oskar',
        demands: [ask.plain('file', 'insurer-letter', 'the letter')],
      }),
    ],
    demands: [
      ask.tagToStart('crane-tag', 'Crane’s tag'),
      ask.plain('longText', 'findings', 'Findings, in the examiner’s words'),
    ],
    signOff: { by: 'manager' },
    priority: 'high',
    favourite: true,
  },
  {
    key: 'winch',
    name: 'Slipway winch',
    title: 'Slipway winch, grease and cable',
    category: 'yard',
    minutes: 75,
    instructions: 'Isolate first. Run the whole cable out under light load and look at it as it comes back.',
    steps: [
      'Isolated and tagged',
      check('strands', 'Cable run out and looked over', [
        ask.number('broken-strands', 'strands', 0, 4, 'Broken strands'),
      ]),
      'Bearings greased',
      check('brake', 'Brake holds', [ask.plain('yesNo', 'brake-holds')]),
    ],
    notes: ['Two broken strands at 40 m, within limits; look again next time.'],
  },
  {
    key: 'workboat',
    name: 'Workboat engine check',
    title: '{asset}: engine check',
    category: 'yard',
    minutes: 40,
    tickets: ['workboat skipper'],
    instructions: 'Cold engine. Oil, belt, bilge, then ten minutes running alongside.',
    steps: [
      'Oil and belt',
      'Bilge dry',
      'Ten minutes running',
      check('hours', 'Hours written down', [ask.number('engine-hours', 'h', 0, null)]),
    ],
    notes: ['Belt slack, tightened.', 'Bilge pump switch sticky.'],
  },
  {
    key: 'pumps',
    who: { v: 1, kind: 'anyOf', group: { of: 'role', role: 'fuel dock' } },
    name: 'Pumps and hoses',
    title: 'Pumps and hoses, {type}',
    category: 'fuel dock',
    minutes: 25,
    instructions: 'Before the first boat. Nozzle, hose, swivel, stop button. A weep is a stop.',
    steps: ['Nozzles dry', 'Hoses and swivels', 'Stop button works', 'Absorbent in place'],
    type: 'routine',
    notes: ['Hose 2 weeping at the swivel, out of use until changed.'],
  },
  {
    key: 'spillKits',
    name: 'Spill kits',
    title: 'Spill kits, {asset}',
    category: 'fuel dock',
    minutes: 30,
    instructions: 'Open, count, close with a new seal. Used pads go into the drum, not the bin.',
    steps: [
      check(
        'short',
        'Contents counted',
        [ask.choices('what-is-short', 'nothing', 'pads', 'socks', 'gloves', 'sacks')],
        'What was short, and has been filled up.',
      ),
      'Seals renewed',
      'Used pads away',
    ],
  },
  {
    key: 'meterCal',
    name: 'Fuel meter calibration',
    category: 'fuel dock',
    minutes: 180,
    instructions:
      'Twenty litres into the certified can, three times a meter. Outside half a per cent: seal it and ring the maker.',
    steps: [
      check('diesel', 'Diesel meter', [ask.number('diesel-error', '%', -0.5, 0.5)]),
      check('petrol', 'Petrol meter', [ask.number('petrol-error', '%', -0.5, 0.5)]),
      check('certificate', 'Certificate filed', [ask.plain('file', 'meter-certificate')]),
    ],
    title: 'Fuel meter calibration {iso}',
  },
  {
    key: 'invoicing',
    name: 'Berth invoicing',
    title: 'Berth invoices for {month}',
    category: 'money',
    minutes: 120,
    instructions: 'Run the list, look at the changes since last month, send. Visitors are billed on leaving, not here.',
    steps: ['Arrivals and departures', 'Meter readings entered', 'Invoices sent', 'Returned ones rung'],
    notes: ['Two addresses bounced, letters sent.'],
  },
  {
    key: 'bank',
    name: 'Bank reconciliation',
    title: 'Bank reconciliation {number}, week {week}',
    category: 'money',
    minutes: 45,
    instructions:
      'Every line of the statement has an entry, and every entry a line. What is left over goes to Ines the same day.',
    steps: [
      'Statement in',
      'All lines matched',
      check('difference', 'Difference is nil', [ask.number('left-over', 'pounds', 0, 0, 'What is left over')]),
    ],
    notes: ['18.40 from the card machine unmatched, asked the bank.'],
  },
  {
    key: 'payroll',
    name: 'Payroll run',
    title: 'Payroll {day}',
    category: 'money',
    minutes: 90,
    instructions: 'Hours closed by noon the day before. Pay has to leave before the bank’s cut-off at two.',
    steps: ['Hours closed', 'Changes entered', 'Draft printed', 'Payment sent', 'Slips out'],
    signOff: { by: 'role', role: 'office' },
    priority: 'high',
  },
  {
    key: 'taxReturn',
    name: 'Tax return',
    title: 'Tax return for the quarter, by {date}',
    category: 'money',
    minutes: 150,
    instructions: 'A month and seven days after the quarter’s end, no later.',
    steps: [
      'Sales and purchases agreed',
      'Return filed',
      'Payment booked',
      own('figures', 'Figures for the tax return to Ines', 60, -5, 'workingDay'),
      own('read', 'Read the tax return {quarter}', 30, -2, 'workingDay', { who: 'ines', due: '12:00' }),
    ],
    demands: [ask.plain('file', 'receipt', 'the receipt')],
  },
  {
    key: 'deposits',
    name: 'Deposit review',
    title: 'Deposit review {quarter} {year}',
    category: 'money',
    minutes: 60,
    instructions: 'Deposits of berth-holders who have left: paid back or explained.',
    steps: ['List of leavers', 'Paid back', 'Explained'],
  },
  {
    key: 'briefing',
    name: 'Dock crew briefing',
    title: 'Dock crew briefing, week {week}',
    category: 'people',
    minutes: 45,
    instructions: 'Ten minutes on the week before, the rest on the week to come: lifts, visitors, weather.',
    steps: [
      'Held',
      'Actions given',
      own('agenda', 'Agenda for the briefing, week {week}', 15, -1, 'workingDay', { due: '16:00', who: 'ines' }),
    ],
    demands: [ask.plain('note', 'actions', 'what was agreed')],
    favourite: true,
    notes: ['Kit to show Wilf the storm lines.'],
  },
  {
    key: 'renewalLetters',
    name: 'Renewal letters',
    title: 'Renewal letters {day}',
    category: 'berths',
    minutes: 60,
    instructions: 'Contracts that end within ten weeks. One letter each; ring the ones who never write back.',
    steps: ['List drawn', 'Letters out', 'Calls noted'],
    notes: ['Four to ring next week.'],
  },
  {
    key: 'meterReading',
    name: 'Meter reading',
    title: 'Meter of {client}, {quarter}',
    category: 'berths',
    minutes: 5,
    instructions:
      'Read the meter of the shore post. What was read last stands beside it: a jump of more than half is looked into.',
    steps: ['Meter read'],
    demands: [ask.number('meter-kwh', 'kWh', 0, 99999)],
  },
  {
    key: 'lines',
    name: 'Lines and fenders',
    title: 'Lines and fenders of {client}',
    category: 'berths',
    minutes: 15,
    instructions:
      'Look at every line where it chafes, and at the fenders. What is worn is told the owner the same day.',
    steps: ['Bow and stern lines', 'Springs', 'Fenders'],
  },
  {
    key: 'renewalTalk',
    name: 'Renewal talk',
    title: 'Renewal talk with {client}',
    category: 'berths',
    minutes: 30,
    instructions: 'Does the berth suit? What changes next year, and what does the owner want changed?',
    steps: ['Talked', 'Wishes written down'],
  },
  {
    key: 'anodes',
    name: 'Anodes and hull',
    title: 'Anodes and hull of {client}',
    category: 'yard',
    minutes: 45,
    instructions: 'In the slings: anodes, stern gear, hull below the line. Pictures of what the owner has to see.',
    steps: ['Anodes', 'Stern gear', 'Hull'],
  },
  {
    key: 'visitors',
    name: 'Visitor berth turnover',
    title: 'Visitor berths, {weekday}',
    category: 'berths',
    minutes: 120,
    instructions:
      'Those who leave by ten, those who come from noon. Lines and fenders ready, power post read on both, name on the board.',
    steps: ['Leavers off, posts read', 'Berths rinsed', 'Arrivals tied up', 'Board updated'],
    notes: ['Arrival on D 8 draws 2.4 m, moved to the deep end.', 'Left without paying for power, rang them.'],
  },
  {
    key: 'lifts',
    name: 'Lifts of the day',
    title: 'Lifts, {weekday} {day}',
    category: 'lifting',
    minutes: 240,
    tickets: ['boat hoist operator'],
    instructions:
      'Wind under twelve knots at the hook. Slings on the marks, owner off the boat, one person on the radio.',
    steps: ['Wind and crane checked', 'Slings and tags', 'Lifts done as booked', 'Hard left clear'],
    demands: [ask.tagToStart('crane-tag', 'Crane’s tag')],
    notes: ['Second lift put off, wind 15 knots.', 'Chock 6 cracked, out of use.'],
  },
  {
    key: 'fuelShift',
    name: 'Fuel dock shift and cash-up',
    title: 'Fuel dock shift, {weekday}',
    category: 'fuel dock',
    minutes: 210,
    instructions:
      'Dip both tanks with the valve shut before the first sale and after the last. Litres sold, cash and cards agree.',
    steps: ['Tanks dipped', 'Meter read', 'Cash and cards agree', 'Keys in the safe'],
    notes: ['Diesel 40 l under the meter, dipped again: the same.', 'Card machine slow, two paid cash.'],
  },
  {
    key: 'post',
    name: 'Post and ledger',
    title: 'Post and ledger, {weekday}',
    category: 'money',
    minutes: 150,
    instructions: 'Open, stamp, enter. Nothing stays in the tray overnight.',
    steps: ['Post opened', 'Entries made', 'Payments listed'],
  },
  {
    key: 'enquiries',
    who: { v: 1, kind: 'leastToDo', group: { of: 'role', role: 'berth adviser' } },
    name: 'Berth enquiries',
    title: 'Berth enquiries, {weekday}',
    category: 'berths',
    minutes: 180,
    instructions: 'Everyone who wrote yesterday has an answer today, even if it is “not yet”.',
    steps: ['Yesterday’s answered', 'Viewings booked'],
    notes: ['Two viewings on Saturday.'],
  },
  {
    key: 'washrooms',
    name: 'Washrooms and showers',
    title: 'Washrooms and showers',
    category: 'inspection',
    minutes: 60,
    instructions: 'Before eight and dry by nine. Report what drips.',
    steps: ['Floors', 'Stock filled', 'Drains run'],
    notes: ['Shower 3 drips, washer ordered.'],
  },
  {
    key: 'morningRound',
    name: 'Morning round with the leads',
    title: 'Morning round, {weekday}',
    category: 'people',
    minutes: 45,
    instructions: 'Five minutes with each lead: what is late, what is in the way, who is short.',
    steps: ['Dock crew', 'Yard', 'Office and fuel dock'],
  },
  {
    key: 'insurance',
    name: 'Insurance certificate',
    summary: 'sent by the berth-holder',
    title: 'Insurance certificate for {asset}',
    category: 'berths',
    minutes: 5,
    instructions:
      'The one we hold runs out soon. We need the page that names the vessel, the sum for damage to others and the last day.',
    steps: [],
    demands: [
      ask.plain('file', 'certificate', 'The certificate'),
      ask.plain('date', 'covers-until', 'Last day it covers'),
      { ...ask.choice('aboard', 'No', 'Yes, some nights'), label: 'Does anyone sleep aboard this winter?' },
    ],
    signOff: { by: 'role', role: 'office' },
    who: { v: 1, kind: 'client' },
  },
  {
    key: 'newHolder',
    name: 'New berth-holder',
    summary: 'from the agreement to the first-week call',
    title: 'New berth-holder · {client} · {asset}',
    category: 'berths',
    minutes: 30,
    instructions:
      '<p>The date is the first day aboard. Nobody ties up before the agreement is back and the policy has been seen.</p><ul data-type="taskList"><li data-type="taskItem" data-checked="false"><label><input type="checkbox"><span></span></label><div><p>Washroom code of the month, on the back of the card</p></div></li><li data-type="taskItem" data-checked="false"><label><input type="checkbox"><span></span></label><div><p>Which post is theirs, and where to read it</p></div></li></ul>',
    steps: [
      check('key', 'Key and card handed over', [ask.plain('text', 'key-no', 'Number on the key')]),
      'Walked round: fire points, washrooms, waste',
      check('berth', 'Lines and fenders seen', [ask.plain('file', 'berth-photo', 'the boat on her berth')]),
      own('agreement', 'Agreement to {client}', 30, -3, 'workingDay', { who: 'rhona' }),
      check('policy', 'Insurance runs until', [ask.plain('date', 'insured-until')]),
      own('pack', 'Welcome pack for {asset}', 15, -1, 'workingDay', { who: 'nadia' }),
      own('lift', 'Lift {asset} in', 60, 0, 'day', { who: 'bram', start: '11:00', due: '12:00' }),
      own('dinghy', 'Dinghy rack for {client}', 10, 0, 'day', { who: 'nobody' }),
      own('call', 'First-week call to {client}', 10, 7, 'day', {
        who: 'rhona',
        demands: [ask.plain('note', 'said', 'what they said')],
      }),
    ],
    type: 'arrival',
    favourite: true,
  },
  {
    key: 'storm',
    name: 'Storm warning',
    summary: 'lines and fenders',
    title: 'Storm warning {date}: lines and fenders',
    category: 'berths',
    minutes: 120,
    instructions:
      '<p>The date is the day the wind is due. All three quays before dark; owners who are away are rung.</p>',
    steps: [
      check('quays', 'Quays walked', [ask.choices('walked', 'Lee Quay', 'Long Quay', 'Gannet Quay')]),
      'Cranes down and pinned',
      check('gust', 'Strongest gust', [ask.number('gust-knots', 'knots', null, 60)]),
      own('owners', 'Ring the owners who are away, {day}', 90, -1, 'day', { who: 'rhona', due: '17:00' }),
      own('boats', 'Workboats to the inner berths', 40, -1, 'day', { who: 'any of yard', due: '16:00' }),
      own('after', 'Look round after the storm, for {person}', 60, 1, 'day', {
        start: '08:00',
        demands: [ask.plain('longText', 'damage', 'Damage, quay by quay')],
      }),
    ],
    priority: 'urgent',
    type: 'breakdown',
  },
] as const satisfies readonly DemoTemplate[];

export type TemplateKey = (typeof TEMPLATES)[number]['key'];
