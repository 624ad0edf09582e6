<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use LucidStep\App\Areas\Casebook\Queries\CheckCase;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Keys\NextKey;

/**
 * Hands out writers of cases, and cases to change.
 */
final readonly class CaseWriterFactory
{
    public function __construct(
        private NextKey $nextKey,
        private PublishChange $announce,
        private CheckCase $check,
        private Memberships $memberships,
    ) {}

    /**
     * @param  int  $expected how many new cases there will be, about
     */
    public function for(Project $project, User $author, int $expected = 1): CaseWriter
    {
        return new CaseWriter($project, $author, $this->nextKey, $this->announce, $this->approval($project, $author), $expected);
    }

    /**
     * Whether what somebody writes may be approved by that.
     */
    public function approval(Project $project, User $author): Approval
    {
        return new Approval($project, true === $this->memberships->role($author, $project->id)?->leads(), $this->check);
    }

    /**
     * The case as it is now, with all that a change of it needs, locked until the transaction ends.
     */
    public function lock(string $id): TestCase
    {
        return TestCase::query()->lockForUpdate()->with('version.steps', 'requirements', 'owner')->findOrFail($id);
    }
}
