import { DefaultNamingStrategy, type NamingStrategyInterface } from 'typeorm';

/** `workOn` in the code is `work_on` in the database. */
export const columnName = (field: string) => field.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

/** Names told from the code's, so that no entity has to say them again. */
export class SnakeNaming extends DefaultNamingStrategy implements NamingStrategyInterface {
  override columnName(propertyName: string, customName: string | undefined): string {
    return customName ?? columnName(propertyName);
  }
}
