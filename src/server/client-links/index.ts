/** What clients are asked to do: mails with a link, the page behind it, and what the office sees of it. */
export { askOwed } from './asking.ts';
export { ClientAsk, ClientLink } from './entity.ts';
export { byLinkRoutes, clientLinkRoutes } from './routes.ts';
