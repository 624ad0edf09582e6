<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Transactions;
use LucidStep\Core\Access\AccessPolicies;

/**
 * Changes what a project says of who may what.
 */
final readonly class SaveAccess
{
    public function __construct(private PublishChange $publish) {}

    /**
     * @param  array<array-key, mixed>  $changes by the policies' names; those left out stay
     *
     * @throws ValidationException when whoever asks for a second factor has none: they would lock themselves out
     */
    public function __invoke(Project $project, User $by, array $changes): void
    {
        Transactions::run(function () use ($project, $by, $changes): void {
            $project = Project::query()->lockForUpdate()->findOrFail($project->id);
            $before = AccessPolicies::fromArray($project->access);
            $after = AccessPolicies::fromArray([...$before->toArray(), ...$changes]);
            if ($after->secondFactorRequired && !$before->secondFactorRequired && null === $by->totp_confirmed_at) {
                throw ValidationException::withMessages([
                    'second_factor_required' => 'Set a second factor up for yourself first: without one you would come in no more.',
                ]);
            }
            $project->update(['access' => $after->toArray()]);
            ($this->publish)($project->id, 'entry', $project->id);
        });
    }
}
