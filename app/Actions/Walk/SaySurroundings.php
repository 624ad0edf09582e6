<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Walk;

use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Configuration;
use LucidStep\App\Models\LateAct;
use LucidStep\App\Models\User;

/**
 * Says what an attempt was really walked on: build, configuration, and the environment in words.
 */
final readonly class SaySurroundings
{
    public function __construct(private Act $act, private Journal $journal)
    {
    }

    /**
     * @param  array{build_id?: ?string, configuration_id?: ?string, environment?: ?string}  $fields
     *
     * @return ?LateAct the act, when it arrived too late
     *
     * @throws ValidationException when the project has no such build or configuration
     */
    public function __invoke(Attempt $attempt, User $user, array $fields, DeviceStamp $stamp): ?LateAct
    {
        $fields = ['build_id' => $fields['build_id'] ?? null, 'configuration_id' => $fields['configuration_id'] ?? null, 'environment' => trim((string) ($fields['environment'] ?? ''))];
        self::check($attempt->project_id, $fields['build_id'], $fields['configuration_id']);
        $fields['environment'] = (string) Secrets::hide($attempt, ['environment' => $fields['environment']])['environment'];

        return ($this->act)($attempt, $user, 'surroundings_said', $fields, $stamp, function (Attempt $attempt) use ($user, $fields, $stamp): void {
            $attempt->fill($fields);
            $this->journal->append($attempt, $user, 'surroundings_said', ['build' => $fields['build_id'], 'configuration' => $fields['configuration_id'], 'environment' => $fields['environment']], $stamp);
        });
    }

    /**
     * @throws ValidationException by field
     */
    public static function check(string $project, ?string $build, ?string $configuration): void
    {
        if (null !== $build && !Build::query()->where('project_id', $project)->whereKey($build)->exists()) {
            throw ValidationException::withMessages(['build_id' => 'This build is not there any more.']);
        }
        if (null !== $configuration && !Configuration::query()->where('project_id', $project)->whereKey($configuration)->exists()) {
            throw ValidationException::withMessages(['configuration_id' => 'This configuration is not there any more.']);
        }
    }
}
