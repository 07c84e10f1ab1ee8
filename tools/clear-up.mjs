// After the unit tests: the bench that the server's suites shared.
import { rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

export default function clearUp(_global, project) {
  rmSync(join(tmpdir(), `yellow-pane-bench-${project.globals.benchRun}.tar`), { force: true });
}
