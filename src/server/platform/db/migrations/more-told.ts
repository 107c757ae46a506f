import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What is said of work, opened by clients, listed and brought in is noted too, and to whom work is offered. */
export class MoreTold1768800000000 implements MigrationInterface {
  readonly name = 'MoreTold1768800000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table message drop constraint message_kind_check;
      alter table message add constraint message_kind_check check (kind in ('new', 'reminder', 'soon', 'late', 'hands', 'moved', 'held',
        'check', 'finished', 'comment', 'answer', 'client', 'notice', 'nobody', 'shift', 'calls', 'pool', 'asked', 'named', 'run', 'import', 'mail'));
      ${TASK_FACTS(`, 'offeredTo', t.offered_to`)}
      drop trigger note_made on task;
      create trigger note_made after insert on task for each row
        when (new.run_id is null and (new.assignee_id is not null or new.offered_to is not null) and new.state in ('open', 'underWay'))
        execute function note_task();
      drop trigger note_changed on task;
      create trigger note_changed after update of assignee_id, due_on, state, held_reason, held_until, sent_back, offered_to on task for each row
        when (old.assignee_id is distinct from new.assignee_id or old.due_on <> new.due_on or old.state <> new.state
          or old.held_reason is distinct from new.held_reason or old.held_until is distinct from new.held_until or old.sent_back <> new.sent_back
          or old.offered_to is distinct from new.offered_to)
        execute function note_task();

      create trigger note_comment_made after insert on task_comment for each row execute function note_state('comment');
      create function note_opened () returns trigger language plpgsql as $$
      begin
        perform note_untold(new.workspace_id, 'opened', new.id, null,
          jsonb_build_object('taskId', new.task_id, 'clientId', new.client_id, 'contact', new.name));
        return null;
      end $$;
      create trigger note_link_opened after update of opened_at on client_link for each row
        when (old.opened_at is null and new.opened_at is not null) execute function note_opened();
      create trigger note_list_made after insert on call_list for each row execute function note_state('list');
      create function note_brought_in () returns trigger language plpgsql as $$
      begin
        perform note_untold(new.workspace_id, 'broughtIn', new.id, null,
          jsonb_build_object('kind', new.kind, 'fileName', new.file_name, 'rows', new.row_count));
        return null;
      end $$;
      create trigger note_brought_in after update of state on bring_in for each row
        when (old.state = 'open' and new.state = 'done') execute function note_brought_in();
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      drop trigger note_brought_in on bring_in;
      drop function note_brought_in();
      drop trigger note_list_made on call_list;
      drop trigger note_link_opened on client_link;
      drop function note_opened();
      drop trigger note_comment_made on task_comment;
      delete from untold where subject in ('comment', 'opened', 'list', 'broughtIn');
      drop trigger note_changed on task;
      create trigger note_changed after update of assignee_id, due_on, state, held_reason, held_until, sent_back on task for each row
        when (old.assignee_id is distinct from new.assignee_id or old.due_on <> new.due_on or old.state <> new.state
          or old.held_reason is distinct from new.held_reason or old.held_until is distinct from new.held_until or old.sent_back <> new.sent_back)
        execute function note_task();
      drop trigger note_made on task;
      create trigger note_made after insert on task for each row
        when (new.run_id is null and new.assignee_id is not null and new.state in ('open', 'underWay')) execute function note_task();
      ${TASK_FACTS('')}
      -- What the table could not hold before goes.
      delete from message where kind in ('comment', 'answer', 'client', 'notice', 'calls', 'pool', 'shift', 'import');
      delete from message_count where kind in ('comment', 'answer', 'client', 'notice', 'calls', 'pool', 'shift', 'import');
      alter table message drop constraint message_kind_check;
      alter table message add constraint message_kind_check check (kind in ('new', 'reminder', 'soon', 'late', 'hands', 'moved', 'held',
        'check', 'finished', 'nobody', 'asked', 'named', 'run', 'mail'));
    `);
  }
}

const TASK_FACTS = (
  more: string,
) => `create or replace function task_facts (t task) returns jsonb language sql stable as $$
        select jsonb_build_object('title', t.title, 'assigneeId', t.assignee_id, 'dueOn', t.due_on, 'state', t.state,
          'heldReason', t.held_reason, 'heldUntil', t.held_until, 'sentBack', jsonb_array_length(t.sent_back),
          'sentBackReason', t.sent_back->-1->>'reason', 'doneByContact', t.done_by_contact${more})
      $$;`;
