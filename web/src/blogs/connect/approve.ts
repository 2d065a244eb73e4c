import { ApprovalBegun, type NewApproval } from '@grivo/contract';
import { call } from '../../api/call.ts';

/** Leads to where the owner of a blog approves; they come back to `/blogs/approved`. */
export async function approveAt(asked: NewApproval): Promise<void> {
  const { address } = await call('POST', '/blogs/approvals', { body: asked, answer: ApprovalBegun });
  window.location.assign(address);
}
