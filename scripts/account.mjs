import { execFileSync, spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { root } from './root.mjs';

const USER = 'jolly-rota';

/**
 * Started as root, the server runs under a user of its own that owns its files and nothing else: what is wrong with a
 * picture or a library does not have the whole machine. Gives the words to put before its command, which may be none.
 */
export function ownAccount(filesFolder, say) {
  if (process.getuid?.() !== 0) return [];
  if (spawnSync('id', [USER]).status !== 0)
    execFileSync('useradd', ['--system', '--no-create-home', '--shell', '/usr/sbin/nologin', USER]);
  const prefix = ['setpriv', `--reuid=${USER}`, `--regid=${USER}`, '--init-groups', '--no-new-privs'];
  const mayRead = ['dist/server/main.js', 'dist/web/index.html', 'node_modules/express/package.json'].every(
    (file) => spawnSync(prefix[0], [...prefix.slice(1), 'test', '-r', join(root, file)]).status === 0,
  );
  execFileSync('chown', ['-R', `${USER}:`, filesFolder]);
  if (mayRead && spawnSync(prefix[0], [...prefix.slice(1), 'test', '-w', filesFolder]).status === 0)
    return [...prefix, '--pdeathsig', 'TERM', '--'];
  execFileSync('chown', ['-R', 'root:', filesFolder]);
  say(
    `The server runs as root, since the user ${USER} can't read ${root}. Put it where every user may read, such as under /srv, to have it run as ${USER}.`,
  );
  return [];
}
