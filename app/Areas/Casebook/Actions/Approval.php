<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use LucidStep\App\Areas\Casebook\Queries\CheckCase;
use LucidStep\App\Areas\Casebook\Queries\RoutineBook;
use LucidStep\App\Models\DataTable;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Casebook\CaseText;
use LucidStep\Core\Casebook\Review;
use LucidStep\Core\Data\Routines;

/**
 * Whether a case may become approved: by a lead alone, and without an error in its text. Whatever writes cases asks here, by hand,
 * in bulk, by import and by undo.
 */
final class Approval
{
    private ?Routines $routines = null;

    /** @var array<string, ?DataTable> */
    private array $tables = [];

    public function __construct(private readonly Project $project, private readonly bool $leads, private readonly CheckCase $check) {}

    /**
     * @param  CaseState  $to the state that the case is to have
     * @param  CaseText  $text the text that it is to have
     * @param  ?TestCase  $case as it is, with its version; null: it is new
     * @param  bool  $checked whether its text is checked: not while what it refers to is still to come
     *
     * @return list<string> what speaks against it; nothing where it is not approved by this, but was, or was as it is to be again
     */
    public function refusals(CaseState $to, CaseText $text, ?TestCase $case, bool $checked = true): array
    {
        // Most of what is written approves nothing: its text is not even looked at.
        $asApproved =
            CaseState::Approved === $to &&
            null !== $case &&
            $case->approved_version_id === $case->version_id &&
            $case->version->text()->equals($text);

        return match (true) {
            !Review::approves($case?->state, $to, $asApproved) => [],
            !$this->leads => ['Only a lead approves.'],
            default => $checked ? $this->errors($text) : [],
        };
    }

    /**
     * @return list<string>
     */
    private function errors(CaseText $text): array
    {
        if (null !== $text->table && !\array_key_exists($text->table, $this->tables)) {
            $this->tables[$text->table] = DataTable::query()
                ->where('project_id', $this->project->id)
                ->whereNull('binned_at')
                ->find($text->table);
        }

        return $this->check->errors(
            $this->project->id,
            $text,
            $this->routines ??= RoutineBook::all($this->project->id),
            null === $text->table ? null : $this->tables[$text->table],
        );
    }
}
