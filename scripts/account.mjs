import { execFileSync, spawnSync } from 'node:child_process';
import { join } from 'node:path';

const USER = 'jolly-rota';

/** What stands for all of the code, built and installed. */
export function codeOf(root) {
  return ['dist/server/main.js', 'dist/web/index.html', 'node_modules/express/package.json'].map((file) =>
    join(root, file),
  );
}

/**
 * Started as root, the server runs under a user of its own that owns its files and nothing else: what is wrong with a
 * picture or a library does not have the whole machine. Gives the words to put before its command, which may be none.
 *
 * `files` is the folder it writes to, `code` what it must be able to read.
 */
export function ownAccount({ files, code, say }) {
  if (process.getuid?.() !== 0) return [];
  if (spawnSync('id', [USER]).status !== 0)
    execFileSync('useradd', ['--system', '--no-create-home', '--shell', '/usr/sbin/nologin', USER]);
  const prefix = ['setpriv', `--reuid=${USER}`, `--regid=${USER}`, '--init-groups', '--no-new-privs'];
  const may = (how, path) => spawnSync(prefix[0], [...prefix.slice(1), 'test', how, path]).status === 0;
  const unread = code.find((path) => !may('-r', path));
  execFileSync('chown', ['-R', `${USER}:`, files]);
  if (unread === undefined && may('-w', files)) return [...prefix, '--pdeathsig', 'TERM', '--'];
  execFileSync('chown', ['-R', 'root:', files]);
  say(
    `The server runs as root, since the user ${USER} can't ${unread === undefined ? `write to ${files}` : `read ${unread}`}. Put it where every user may read, such as under /srv, to have it run as ${USER}.`,
  );
  return [];
}
