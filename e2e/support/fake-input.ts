/** A browser with a sound input that nobody has to allow, and that beeps once a second: Chromium's own stand-in for a microphone. */
import { chromium, type Browser, type TestInfo } from '@playwright/test';

export function withInput({ project }: TestInfo): Promise<Browser> {
  const { executablePath, args = [] } = project.use.launchOptions ?? {};
  return chromium.launch({
    executablePath,
    args: [...args, '--use-fake-ui-for-media-stream', '--use-fake-device-for-media-stream'],
  });
}
