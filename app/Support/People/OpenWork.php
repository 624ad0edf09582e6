<?php

declare(strict_types=1);

namespace LucidStep\App\Support\People;

use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;

/**
 * What a person has to do in a project, of one kind: it is handed on when they leave. Each area says it of its own.
 */
interface OpenWork
{
    /**
     * @return array{string, string} what one of it is called, and many
     */
    public function noun(): array;

    /**
     * Whether somebody who walks must take it.
     */
    public function needsTester(): bool;

    /**
     * @return array<string, int> how much of it each person has, by id; who has none is left out
     */
    public function counts(Project $project): array;

    /**
     * Hands all of it on, by the same act as anybody would.
     *
     * @param  ?User  $to null: to nobody
     */
    public function handOver(Project $project, User $from, ?User $to, User $by): void;
}
