<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Queries\CheckCase;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Models\Project;
use LucidStep\Core\Casebook\CaseText;
use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Forecast\Duration;
use LucidStep\Core\Forecast\NotADuration;
use LucidStep\Core\Text\ItemList;

/**
 * Takes what a person typed into a case: what it refers to must be there.
 *
 * @phpstan-type Typed array{
 *     folder_id?: ?string, type?: ?string, priority?: ?string, automated?: ?bool, is_template?: ?bool, owner_id?: ?string,
 *     labels?: ?array<array-key, string>, requirements?: ?list<string>, estimate?: string|int|null,
 *     custom?: ?array<array-key, mixed>, ...
 * }
 */
final class CaseInput
{
    /** @var array<string, list<string>> messages by field path */
    private array $errors = [];

    /** @var array<string, bool> whether a row is there, by table and id: asked once for all cases of an act */
    private array $known = [];

    private readonly ProjectLists $lists;

    public function __construct(private readonly Project $project)
    {
        $this->lists = new ProjectLists($project);
    }

    /**
     * @param  array<string, mixed>  $input
     *
     * @throws ValidationException
     */
    public function text(array $input): CaseText
    {
        $text = CaseText::fromArray($input);
        $title = trim((string) preg_replace('/\s+/u', ' ', $text->title));
        // Empty rows at the end of the grid are no steps.
        $steps = $text->steps;
        while ([] !== $steps && $steps[\count($steps) - 1]->isEmpty()) {
            array_pop($steps);
        }
        $this->checkReferences($steps, $text);
        $this->refuse();

        return new CaseText(
            $title,
            rtrim($text->objective),
            rtrim($text->preconditions),
            rtrim($text->postconditions),
            $steps,
            $text->table,
            $text->files,
        );
    }

    /**
     * @param  Typed  $input only what is there is changed
     *
     * @throws ValidationException
     */
    public function fields(array $input, CaseFields $before): CaseFields
    {
        $changes = array_intersect_key(
            $input,
            array_flip(['folder_id', 'type', 'priority', 'automated', 'is_template', 'owner_id', 'labels', 'requirements']),
        );
        foreach (['automated', 'is_template'] as $flag) {
            if (isset($changes[$flag])) {
                $changes[$flag] = (bool) $changes[$flag];
            }
        }
        if (\array_key_exists('estimate', $input)) {
            $changes['estimate_seconds'] = $this->estimate(trim((string) $input['estimate']));
        }
        if (isset($changes['labels'])) {
            $changes['labels'] = ItemList::names($changes['labels']);
        }
        if (isset($changes['requirements'])) {
            $changes['requirements'] = $this->existing(
                'requirements',
                array_values(array_unique($changes['requirements'])),
                'requirements',
            );
            sort($changes['requirements']);
        }
        if (isset($input['custom']) && \is_array($input['custom'])) {
            $changes['custom'] = $this->custom($input['custom'], $before->custom);
        }
        if (
            isset($changes['type']) &&
            $changes['type'] !== $before->type &&
            !\in_array($changes['type'], $this->lists->values('type'), true)
        ) {
            $this->errors['type'][] = 'This type is not in the list any more. Choose another.';
        }
        if (
            isset($changes['priority']) &&
            $changes['priority'] !== $before->priority &&
            !\in_array($changes['priority'], $this->lists->values('priority'), true)
        ) {
            $this->errors['priority'][] = 'This priority is not in the list any more. Choose another.';
        }
        if (null !== ($changes['owner_id'] ?? null) && !$this->isThere('memberships', 'user_id', $changes['owner_id'])) {
            $this->errors['owner_id'][] = 'This person has no part in the project.';
        }
        if (null !== ($changes['folder_id'] ?? null) && !$this->isThere('folders', 'id', $changes['folder_id'])) {
            $this->errors['folder_id'][] = 'This folder is gone. Choose another.';
        }
        $this->refuse();

        return $before->with($changes);
    }

    public function fresh(?string $owner): CaseFields
    {
        return new CaseFields(type: $this->lists->usualType(), priority: $this->lists->usualPriority(), owner_id: $owner);
    }

    /**
     * @param  list<Step>  $steps
     */
    private function checkReferences(array $steps, CaseText $text): void
    {
        $routines = array_values(array_unique(CheckCase::uses($steps)));
        $known = $this->existing('routines', $routines, null);
        $files = array_values(
            array_unique(
                array_column(
                    [...$text->files, ...array_merge(...array_map(static fn(Step $s): array => $s->files, $steps) ?: [[]])],
                    'sha256',
                ),
            ),
        );
        $stored =
            [] === $files
                ? []
                : DB::table('project_files')->where('project_id', $this->project->id)->whereIn('sha256', $files)->pluck('sha256')->all();
        foreach ($steps as $i => $step) {
            if (null !== $step->routine && !\in_array($step->routine, $known, true)) {
                $this->errors["steps.{$i}.routine"][] = 'The routine that stood here is gone.';
            }
            if ([] !== array_diff(array_column($step->files, 'sha256'), $stored)) {
                $this->errors["steps.{$i}.files"][] = 'The picture did not reach the server. Add it again.';
            }
        }
        if ([] !== array_diff(array_column($text->files, 'sha256'), $stored)) {
            $this->errors['files'][] = 'A file did not reach the server. Add it again.';
        }
        if (null !== $text->table && !$this->isThere('data_tables', 'id', $text->table)) {
            $this->errors['table'][] = 'This data table is gone. Choose another, or none.';
        }
    }

    /**
     * @param  list<string>  $ids
     *
     * @return list<string>
     */
    private function existing(string $table, array $ids, ?string $field): array
    {
        $unasked = array_values(array_filter($ids, fn(string $id): bool => !isset($this->known["{$table} {$id}"])));
        $there =
            [] === $unasked ? [] : DB::table($table)->where('project_id', $this->project->id)->whereIn('id', $unasked)->pluck('id')->all();
        foreach ($unasked as $id) {
            $this->known["{$table} {$id}"] = \in_array($id, $there, true);
        }
        $found = array_values(array_filter($ids, fn(string $id): bool => $this->known["{$table} {$id}"]));
        if (null !== $field && \count($found) < \count($ids)) {
            $this->errors[$field][] = 'One of these is not there any more.';
        }

        return $found;
    }

    /**
     * @param  'memberships'|'folders'|'data_tables'  $table
     */
    private function isThere(string $table, string $column, string $id): bool
    {
        return $this->known["{$table} {$id}"] ??= DB::table($table)
            ->where('project_id', $this->project->id)
            ->where($column, $id)
            ->when('memberships' !== $table, static fn($q) => $q->whereNull('binned_at'))
            ->exists();
    }

    private function estimate(string $typed): ?int
    {
        if ('' === $typed) {
            return null;
        }
        try {
            return intdiv(Duration::fromText($typed)->milliseconds, 1000);
        } catch (NotADuration $e) {
            $this->errors['estimate'][] = $e->getMessage();

            return null;
        }
    }

    /**
     * @param  array<array-key, mixed>  $typed by id of the field
     * @param  array<string, string>  $before
     *
     * @return array<string, string>
     */
    private function custom(array $typed, array $before): array
    {
        $values = $before;
        foreach ($this->lists->fields() as $id => $field) {
            if (!\array_key_exists($id, $typed)) {
                continue;
            }
            try {
                $value = $field->take(\is_scalar($typed[$id]) ? (string) $typed[$id] : '');
                if ('' === $value) {
                    unset($values[$id]);
                } else {
                    $values[$id] = $value;
                }
            } catch (\DomainException $e) {
                $this->errors["custom.{$id}"][] = $e->getMessage();
            }
        }
        ksort($values);

        return $values;
    }

    private function refuse(): void
    {
        if ([] !== $this->errors) {
            $errors = $this->errors;
            $this->errors = [];
            throw ValidationException::withMessages($errors);
        }
    }
}
