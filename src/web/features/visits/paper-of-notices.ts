import { noticeAddresses } from '../../../contract/addresses-later.ts';
import { addressOf } from '../../kit/api.ts';

/** Where a paper of notices is. */
export const paperOfNotices = (of: { readonly notice: string } | { readonly batch: string }): string =>
  addressOf(noticeAddresses.pdf, { query: of });
