/** People of a workspace: what is known of them, how they get in, and what an account may do about itself. */
export { personChanges, takeOutMember } from './changes.ts';
export { colleagues, weeksOfWork } from './colleagues.ts';
export { AccountLink, Clocking, type HeldExchange, Invitation, Leave } from './entity.ts';
export { sendInvitation } from './invitations.ts';
export { changeMember, insertMember, oneMember, type Saved as SavedMember, writeMember } from './members.ts';
export { hashPassword } from './password.ts';
export { reachedAt } from './reached.ts';
export { peopleRoutes, sessionRoutes } from './routes.ts';
