import type * as contract from '../../contract/index.ts';

/** Groups of the contract: "task" of `taskEndpoints`. */
type Group = keyof { [K in keyof typeof contract as K extends `${infer Name}Endpoints` ? Name : never]: true };

/** What each group of operations is about: complete by type. */
export const GROUP_WORDS: Readonly<Record<Group, string>> = {
  answer: 'What contacts write back by mail.',
  backup: 'A whole workspace as one archive.',
  bell: 'What somebody is told of.',
  bringIn: 'Lists that are brought in from files.',
  byLink: 'What a client’s contact does by a link, without an account.',
  calendar: 'Work as calendars (iCalendar), as files and at private addresses.',
  call: 'Quotas of calls, the lists of a day, how each call went.',
  callFigure: 'Figures of calls.',
  clientLink: 'What clients are asked to do.',
  clock: 'Who says to be at work.',
  comment: 'What is said about a task beside its record.',
  directory: 'Clients with their contacts, sites and assets.',
  erasing: 'Taking somebody’s name out of the record, for good.',
  file: 'Pictures and papers.',
  find: 'Anything, by its name.',
  history: 'What was done, and undoing it.',
  label: 'Labels for assets.',
  leave: 'Leave: asked for, given, taken back.',
  list: 'Lists as files (CSV, JSON), in the columns by which they are brought in.',
  logbook: 'What was done and missed.',
  message: 'What each hears of, and how.',
  notice: 'Visits, and the notices of them.',
  overview: 'What wants looking after by now.',
  paper: 'What is taken along or hung up, as PDF.',
  people: 'Who works here.',
  plan: 'Service plans, and who is on them.',
  post: 'What left by mail.',
  push: 'Devices that show what happens though no page is open.',
  record: 'Papers for whoever checks.',
  retention: 'For how long finished work is kept.',
  run: 'Making the tasks of days, and filling a period.',
  schedule: 'Schedules: when, who and for whom.',
  settings: 'What holds for the whole workspace.',
  setup: 'How a workspace begins.',
  shift: 'Shifts, and the dates nobody is on for.',
  subject: 'Clients and assets to choose from.',
  swap: 'Turns that colleagues swap.',
  task: 'Tasks: looked at, done, changed.',
  taskList: 'All tasks as one table, and views of it.',
  template: 'Templates: what.',
  token: 'Tokens by which programs ask.',
  wallchart: 'Assets, clients or people against the days of a year.',
  webhook: 'Programs that are told of what happens to tasks.',
  workload: 'Everybody against their hours.',
  workspace: 'The workspace, and who is signed in.',
};

/** Of what is sent as bytes alone: by the first part of its address. */
export const BYTES_WORDS: Readonly<Record<string, string>> = {
  backups: GROUP_WORDS.backup,
  'bring-ins': GROUP_WORDS.bringIn,
  files: GROUP_WORDS.file,
  link: GROUP_WORDS.byLink,
};
