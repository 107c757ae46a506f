import type { Category } from '../src/contract/index.ts';

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

export interface DemoTemplate {
  readonly key: string;
  readonly name: string;
  readonly title: string;
  readonly category: string;
  readonly minutes: number;
  readonly instructions: string;
  readonly steps: readonly string[];
  /** What people write beside it when there is something to say. */
  readonly notes?: readonly string[];
}

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
      'Widest joint gap measured',
      'Fire point in date',
      'Ladders and life rings',
    ],
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
    steps: ['Extinguishers in date', 'Pins and seals', 'Blankets and buckets', 'Signs readable'],
    notes: ['Extinguisher 3 below the green, swapped.'],
  },
  {
    key: 'lifeRings',
    name: 'Life-ring count',
    title: 'Life-ring count, {asset}',
    category: 'inspection',
    minutes: 20,
    instructions: 'Count the rings on the quay and their lines. A ring without a line counts as missing.',
    steps: ['Rings counted', 'Lines dry and coiled', 'Missing ones replaced'],
    notes: ['One ring gone from post 9, spare hung.'],
  },
  {
    key: 'boarding',
    name: 'Gas and shore power',
    title: 'Gas and shore power · {asset} · {month}',
    category: 'boarding',
    minutes: 60,
    instructions:
      'Shut the bottle valve and read the date stamp on the hose: older than five years is a fail.\nGauge on the test point, valve open, valve shut, wait five minutes.\nThen the socket: earth loop, cable, no tape.',
    steps: [
      'Bottle off, hose and date stamp',
      'Pressure drop in five minutes',
      'Earth loop at the socket',
      'Gas and CO alarms sound',
    ],
    notes: [
      'Hose dated 2021, told the owner to change it by spring.',
      'Alarm battery low, changed.',
      '0.41 Ω at the socket.',
    ],
  },
  {
    key: 'craneCert',
    name: 'Crane certification',
    title: '{asset} certification {year}',
    category: 'lifting',
    minutes: 300,
    instructions:
      'The examiner needs the crane free for half a day, the test weights on the hard and last year’s certificate.',
    steps: ['Crane booked out', 'Test weights ready', 'Examiner’s report in hand', 'Certificate on the cab door'],
  },
  {
    key: 'winch',
    name: 'Slipway winch',
    title: 'Slipway winch, grease and cable',
    category: 'yard',
    minutes: 75,
    instructions: 'Isolate first. Run the whole cable out under light load and look at it as it comes back.',
    steps: ['Isolated and tagged', 'Cable run out and looked over', 'Bearings greased', 'Brake holds'],
    notes: ['Two broken strands at 40 m, within limits; look again next time.'],
  },
  {
    key: 'workboat',
    name: 'Workboat engine check',
    title: '{asset}: engine check',
    category: 'yard',
    minutes: 40,
    instructions: 'Cold engine. Oil, belt, bilge, then ten minutes running alongside.',
    steps: ['Oil and belt', 'Bilge dry', 'Ten minutes running', 'Hours written down'],
    notes: ['Belt slack, tightened.', 'Bilge pump switch sticky.'],
  },
  {
    key: 'pumps',
    name: 'Pumps and hoses',
    title: 'Pumps and hoses',
    category: 'fuel dock',
    minutes: 25,
    instructions: 'Before the first boat. Nozzle, hose, swivel, stop button. A weep is a stop.',
    steps: ['Nozzles dry', 'Hoses and swivels', 'Stop button works', 'Absorbent in place'],
    notes: ['Hose 2 weeping at the swivel, out of use until changed.'],
  },
  {
    key: 'spillKits',
    name: 'Spill kits',
    title: 'Spill kits, {asset}',
    category: 'fuel dock',
    minutes: 30,
    instructions: 'Open, count, close with a new seal. Used pads go into the drum, not the bin.',
    steps: ['Contents counted', 'Seals renewed', 'Used pads away'],
  },
  {
    key: 'meterCal',
    name: 'Fuel meter calibration',
    title: 'Fuel meter calibration {year}',
    category: 'fuel dock',
    minutes: 180,
    instructions:
      'Twenty litres into the certified can, three times a meter. Outside half a per cent: seal it and ring the maker.',
    steps: ['Diesel meter', 'Petrol meter', 'Certificate filed'],
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
    title: 'Bank reconciliation, week {week}',
    category: 'money',
    minutes: 45,
    instructions:
      'Every line of the statement has an entry, and every entry a line. What is left over goes to Ines the same day.',
    steps: ['Statement in', 'All lines matched', 'Difference is nil'],
    notes: ['18.40 from the card machine unmatched, asked the bank.'],
  },
  {
    key: 'payroll',
    name: 'Payroll run',
    title: 'Payroll {day}',
    category: 'money',
    minutes: 90,
    instructions: 'Hours closed by noon the day before. Pay has to leave before the bank’s cut-off at two.',
    steps: ['Hours closed', 'Changes entered', 'Draft read by a second person', 'Payment sent', 'Slips out'],
  },
  {
    key: 'taxReturn',
    name: 'Tax return',
    title: 'Tax return for the quarter, by {date}',
    category: 'money',
    minutes: 150,
    instructions: 'A month and seven days after the quarter’s end, no later.',
    steps: ['Sales and purchases agreed', 'Return filed', 'Payment booked'],
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
    steps: ['Agenda out', 'Held', 'Actions given'],
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
    instructions:
      'Wind under twelve knots at the hook. Slings on the marks, owner off the boat, one person on the radio.',
    steps: ['Wind and crane checked', 'Slings and tags', 'Lifts done as booked', 'Hard left clear'],
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
] as const satisfies readonly DemoTemplate[];

export type TemplateKey = (typeof TEMPLATES)[number]['key'];
