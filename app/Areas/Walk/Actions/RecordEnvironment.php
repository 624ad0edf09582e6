<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Setup\Queries\ProjectReferences;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Record\Journal;
use LucidStep\App\Support\Secrets\MaskSecrets;

/**
 * Says what an attempt was really walked on: build, configuration, and the environment in words.
 */
final readonly class RecordEnvironment
{
    public function __construct(private RecordInAttempt $act, private Journal $journal)
    {
    }

    /**
     * @param  array{build_id?: ?string, configuration_id?: ?string, environment?: ?string}  $fields
     *
     * @return ?LateCommand the act, when it arrived too late
     *
     * @throws ValidationException when the project has no such build or configuration
     */
    public function __invoke(Attempt $attempt, User $user, array $fields, DeviceStamp $stamp): ?LateCommand
    {
        $fields = ['build_id' => $fields['build_id'] ?? null, 'configuration_id' => $fields['configuration_id'] ?? null, 'environment' => trim((string) ($fields['environment'] ?? ''))];
        ProjectReferences::check($attempt->project_id, $fields['build_id'], $fields['configuration_id']);
        $fields['environment'] = (string) MaskSecrets::hide($attempt, ['environment' => $fields['environment']])['environment'];

        return ($this->act)($attempt, $user, 'surroundings_said', $fields, $stamp, function (Attempt $attempt) use ($user, $fields, $stamp): void {
            $attempt->fill($fields);
            $this->journal->append($attempt, $user, 'surroundings_said', ['build' => $fields['build_id'], 'configuration' => $fields['configuration_id'], 'environment' => $fields['environment']], $stamp);
        });
    }
}
