export interface DemoPerson {
  readonly key: string;
  readonly name: string;
  readonly role: string;
  readonly isManager?: boolean;
  readonly capacityMinutes: number;
}

/** The staff of Tern Quay: invented, like all of it. */
export const PEOPLE = [
  { key: 'ines', name: 'Ines Calloway', role: 'manager', isManager: true, capacityMinutes: 420 },
  { key: 'nadia', name: 'Nadia Orme', role: 'dock crew', capacityMinutes: 450 },
  { key: 'kit', name: 'Kit Sorrell', role: 'dock crew', capacityMinutes: 450 },
  { key: 'joss', name: 'Joss Penhale', role: 'dock crew', capacityMinutes: 450 },
  { key: 'tamsin', name: 'Tamsin Wray', role: 'dock crew', capacityMinutes: 450 },
  { key: 'wilf', name: 'Wilf Ardley', role: 'dock crew', capacityMinutes: 240 },
  { key: 'bram', name: 'Bram Hollis', role: 'yard', capacityMinutes: 450 },
  { key: 'selwyn', name: 'Selwyn Dace', role: 'yard', capacityMinutes: 450 },
  { key: 'maud', name: 'Maud Ferrier', role: 'office', capacityMinutes: 420 },
  { key: 'oskar', name: 'Oskar Tindle', role: 'office', capacityMinutes: 420 },
  { key: 'ayesha', name: 'Ayesha Quill', role: 'berth adviser', capacityMinutes: 420 },
  { key: 'rhona', name: 'Rhona Vick', role: 'berth adviser', capacityMinutes: 300 },
  { key: 'lowri', name: 'Lowri Stagg', role: 'fuel dock', capacityMinutes: 450 },
  { key: 'piet', name: 'Piet Garrow', role: 'fuel dock', capacityMinutes: 300 },
] as const satisfies readonly DemoPerson[];

export type PersonKey = (typeof PEOPLE)[number]['key'];
