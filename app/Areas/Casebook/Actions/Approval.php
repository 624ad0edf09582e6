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
use LucidStep\Core\Data\Problem;
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
        $isNew = CaseState::Approved === $to && CaseState::Approved !== $case?->state;
        if (!$isNew || (null !== $case && $case->approved_version_id === $case->version_id && $case->version->text()->equals($text))) {
            return [];
        }
        if (!$this->leads) {
            return ['Only a lead approves.'];
        }

        return $checked ? $this->errors($text) : [];
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
                ->with('rows')
                ->find($text->table);
        }
        $problems = $this->check->problems(
            $this->project->id,
            $text,
            $this->routines ??= RoutineBook::all($this->project->id),
            null === $text->table ? null : $this->tables[$text->table],
        );
        $errors = array_filter($problems, static fn(Problem $p): bool => 'error' === $p->severity);

        return array_values(
            array_map(static fn(Problem $p): string => (null === $p->step ? '' : "Step {$p->step}: ") . $p->message, $errors),
        );
    }
}
