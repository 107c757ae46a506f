import { Check, Column, Entity, Index, PrimaryColumn, Unique } from 'typeorm';
import { TOKEN_SCOPES, type TokenScope } from '../../../core/index.ts';
import { Names, OfWorkspace } from '../db/keys.ts';

/** By which a program asks in somebody's name. Of the token a digest is kept. */
@Entity({ name: 'access_token' })
@OfWorkspace('access_token')
@Names('access_token', 'Person', ['personId'], { onDelete: 'CASCADE' })
@Check('access_token_scope_check', `scope in (${TOKEN_SCOPES.map((scope) => `'${scope}'`).join(', ')})`)
@Unique('access_token_digest', ['digest'])
@Index('access_token_of_person', ['workspaceId', 'personId', 'id'])
export class AccessTokenRecord {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'uuid' })
  personId!: string;
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'text' })
  scope!: TokenScope;
  @Column({ type: 'text' })
  digest!: string;
  @Column({ type: 'date', nullable: true })
  endsOn!: string | null;
  @Column({ type: 'timestamptz' })
  madeAt!: Date;
  @Column({ type: 'timestamptz', nullable: true })
  usedAt!: Date | null;
}
