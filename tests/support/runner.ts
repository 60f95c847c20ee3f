/** One project runs the slow tests, the other all that are not: by their tag, so that both stand in one file. */
import { TestRunner } from 'vitest';

export default class ByTag extends TestRunner {
  constructor(config: ConstructorParameters<typeof TestRunner>[0]) {
    super({ ...config, tagsFilter: [config.name === 'slow' ? 'slow' : '!slow'] });
  }
}
