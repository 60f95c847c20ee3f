// npm run licences: what each package that ships allows; ends with 1 where that is not permissive.
import { shippedPackages } from './lib/licences.mjs';
import { root } from './lib/paths.mjs';

const shipped = shippedPackages(root);
for (const { name, version, licence, may } of shipped)
  console.log(`${may ? ' ' : '!'} ${`${name} ${version}`.padEnd(48)} ${licence}`);
const not = shipped.filter(({ may }) => !may);
console.log(
  `${shipped.length} packages; ${not.length === 0 ? 'all are permissive' : `${not.length} are not permissive`}.`,
);
process.exit(not.length === 0 ? 0 : 1);
