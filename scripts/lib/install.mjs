// What must be on the machine: Debian packages and node_modules. Installs only what is missing.
import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { root } from './paths.mjs';
import { must, run, stop } from './run.mjs';

/** What each Debian package is recognised by. */
const MARKS = {
  postgresql: () => fs.existsSync('/usr/lib/postgresql') && fs.readdirSync('/usr/lib/postgresql').length > 0,
  chromium: () => fs.existsSync('/usr/bin/chromium'),
  'python3-ezdxf': () => fs.existsSync('/usr/lib/python3/dist-packages/ezdxf'),
  'python3-shapely': () => fs.existsSync('/usr/lib/python3/dist-packages/shapely'),
  'python3-cairo': () => fs.existsSync('/usr/lib/python3/dist-packages/cairo'),
  'librsvg2-bin': () => fs.existsSync('/usr/bin/rsvg-convert'),
  'poppler-utils': () => fs.existsSync('/usr/bin/pdftocairo'),
  qpdf: () => fs.existsSync('/usr/bin/qpdf'),
  hp2xx: () => fs.existsSync('/usr/bin/hp2xx'),
  'fonts-dejavu-core': () => fs.existsSync('/usr/share/fonts/truetype/dejavu/DejaVuSans.ttf'),
  'librsvg2-tests': () => fs.existsSync('/usr/libexec/installed-tests/RSVG/fixtures/reftests/svg1.1'),
  'bootstrap-icons': () => fs.existsSync('/usr/share/bootstrap-icons/svg'),
  'libharfbuzz-bin': () => fs.existsSync('/usr/bin/hb-shape'),
  'python3-fonttools': () => fs.existsSync('/usr/lib/python3/dist-packages/fontTools'),
  'fonts-dejavu-extra': () => fs.existsSync('/usr/share/fonts/truetype/dejavu/DejaVuSerif-Italic.ttf'),
};

/** What the independent checks need. */
export const CHECKERS = [
  'python3-ezdxf',
  'python3-shapely',
  'python3-cairo',
  'librsvg2-bin',
  'poppler-utils',
  'qpdf',
  'hp2xx',
  'fonts-dejavu-core',
  'fonts-dejavu-extra',
  'libharfbuzz-bin',
  'python3-fonttools',
  'librsvg2-tests',
  'bootstrap-icons',
];

/** Install Debian packages that are missing; without root, say the line to run. */
export function ensureDebian(packages) {
  const missing = packages.filter((name) => !MARKS[name]());
  if (missing.length === 0) return;
  const line = `apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  if (process.getuid?.() !== 0) stop(`Debian packages are missing. Run this once:\n\n  sudo ${line}\n`);
  console.log(`Installing ${missing.join(', ')} …`);
  const env = { DEBIAN_FRONTEND: 'noninteractive' };
  must('apt-get', ['update', '-q'], { quiet: true, env });
  must('apt-get', ['install', '-y', '--no-install-recommends', ...missing], { quiet: true, env });
}

/** Install node_modules when the lock file has changed since the last time. */
export function ensureNodeModules() {
  const lock = createHash('sha256')
    .update(fs.readFileSync(path.join(root, 'package-lock.json')))
    .digest('hex');
  const marker = path.join(root, 'node_modules', '.needlefile-lock');
  if (fs.existsSync(marker) && fs.readFileSync(marker, 'utf8') === lock) return;
  console.log('Installing Node packages …');
  const result = run('npm', ['ci', '--no-fund', '--no-audit'], { quiet: true });
  if (result.status !== 0) {
    console.error(result.output);
    stop('npm ci failed.');
  }
  fs.writeFileSync(marker, lock);
}
