import type { Api } from '@/api/client';

/** What an attempt is walked on, in the words of its page: configuration, build, environment, and more of it in words. */
export function walkedOn(
  attempt:
    Pick<Api['AttemptSummary'], 'configuration' | 'build' | 'named_environment' | 'environment'> | undefined,
): string[] {
  return [
    attempt?.configuration?.name ?? '',
    attempt?.build ? `build ${attempt.build.name}` : '',
    attempt?.named_environment?.name ?? '',
    attempt?.environment ?? '',
  ].filter(Boolean);
}
