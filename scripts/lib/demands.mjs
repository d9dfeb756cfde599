import { existsSync } from 'node:fs';
import { buildWhenChanged } from './build.mjs';
import { aptInstall, installDebianPackages, installNodePackages } from './packages.mjs';
import { ROOT } from './place.mjs';

/** Installs and builds what tests need: the packages, Debian's Chromium, the program itself. */
export async function installDemands() {
  await installNodePackages(ROOT);
  if (!existsSync('/usr/bin/chromium')) {
    await installDebianPackages('the Chromium browser', aptInstall(['chromium']));
  }
  await buildWhenChanged(ROOT);
}
