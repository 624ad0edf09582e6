<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Coverage\Exceptions\RequirementConflict;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Requirement;
use LucidStep\App\Models\RequirementImport as Import;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Transactions;
use LucidStep\Core\Coverage\ImportedRequirement;
use LucidStep\Core\Coverage\KnownRequirement;
use LucidStep\Core\Coverage\RequirementImport;
use LucidStep\Core\Coverage\RequirementWords;
use LucidStep\Core\Exchange\RequirementRecord;

/**
 * Takes requirements out of a file, and takes that back as one act. Each row goes through the same action as one that is typed.
 */
final readonly class ImportRequirements
{
    public function __construct(private SaveRequirement $save) {}

    /**
     * What would happen, row by row.
     *
     * @param  list<RequirementRecord>  $records
     *
     * @return list<ImportedRequirement>
     */
    public function plan(Project $project, array $records): array
    {
        $known = Requirement::query()->where('project_id', $project->id)->orderBy('number')->get();

        return (new RequirementImport(
            $known->map(
                static fn(Requirement $r): KnownRequirement => new KnownRequirement(
                    $r->id,
                    $r->key,
                    $r->words(),
                    null !== $r->dropped_at,
                    $r->parent_id,
                ),
            ),
            SaveRequirement::DEEPEST,
        ))->rows($records);
    }

    /**
     * Takes all rows that can be taken; the others are left out.
     *
     * @param  list<RequirementRecord>  $records
     * @param  string  $name of the file
     *
     * @return array{Import, list<ImportedRequirement>}
     */
    public function apply(Project $project, User $by, array $records, string $name): array
    {
        return Transactions::run(function () use ($project, $by, $records, $name): array {
            Project::query()->lockForUpdate()->findOrFail($project->id);
            $rows = $this->plan($project, $records);
            $import = (string) Str::uuid7();
            $ids = [];
            $made = 0;
            $known = Requirement::query()->where('project_id', $project->id)->get()->keyBy('id');
            foreach ($rows as $i => $row) {
                if (null !== $row->why) {
                    continue;
                }
                $one = $known[$row->id ?? ''] ?? null;
                if (null === $one) {
                    // Those whose parent comes later in the file are put below it once that is there.
                    $parent = null === $row->parentAt ? $row->parentId : $ids[$row->parentAt] ?? null;
                    $one = $this->save->make($project, $by, $row->words, $parent, $import);
                    $made++;
                } elseif ($row->comesBack || [] !== $row->changes) {
                    $one = $row->comesBack ? $this->takeUp($one, $by, $import) : $one;
                    $one = $this->save->change($one, $by, $row->words, null, $import);
                }
                $known[$one->id] = $one;
                $ids[$i] = $one->id;
            }
            foreach ($rows as $i => $row) {
                $one = $known[$ids[$i] ?? ''] ?? null;
                $parent = null === $row->parentAt ? $row->parentId : $ids[$row->parentAt] ?? null;
                if (null !== $one && $row->moves && $one->parent_id !== $parent) {
                    $this->save->move($one, $by, $parent, null, $import);
                }
            }
            $touched = DB::table('requirement_log')->where('import_id', $import)->distinct()->count('requirement_id');

            return [
                Import::query()->create([
                    'id' => $import,
                    'project_id' => $project->id,
                    'author_id' => $by->id,
                    'name' => $name,
                    'made' => $made,
                    'changed' => $touched - $made,
                ]),
                $rows,
            ];
        });
    }

    /**
     * Takes an import back: what it made is dropped, what it changed says what it said, and stands where it stood. What somebody changed
     * since stays as it is.
     *
     * @return list<string> keys of those that stay
     */
    public function undo(Import $import, User $by): array
    {
        return Transactions::run(function () use ($import, $by): array {
            $import = Import::query()->lockForUpdate()->findOrFail($import->id);
            if (null !== $import->undone_at) {
                throw RequirementConflict::isUndone();
            }
            $log = DB::table('requirement_log')->where('import_id', $import->id)->orderByDesc('id')->get();
            $touched = $this->touchedSince($import->id);
            $stay = [];
            // What was put elsewhere goes back before what it stood below is dropped.
            $order = ['moved' => 0, 'changed' => 1, 'restored' => 2, 'made' => 3];
            foreach ($log->sortBy(static fn(object $l): int => $order[$l->kind] ?? 9) as $line) {
                $one = Requirement::query()->findOrFail((string) $line->requirement_id);
                if (isset($touched[$one->id])) {
                    $stay[$one->key] = true;

                    continue;
                }
                $changes = (array) json_decode($line->changes, true);
                match ($line->kind) {
                    'made', 'restored' => $this->dropOrStay($one, $by, $import->id, $stay),
                    'moved' => $this->save->move(
                        $one,
                        $by,
                        self::was($changes, 'parent_id'),
                        self::was($changes, 'before_id'),
                        $import->id,
                    ),
                    default => $this->save->change($one, $by, self::wordsBefore($one->words(), $changes), null, $import->id),
                };
            }
            $import->update(['undone_at' => Carbon::now()]);

            return array_keys($stay);
        });
    }

    /**
     * One that comes back stands on top until the file says where: what it stood below may be dropped itself.
     */
    private function takeUp(Requirement $requirement, User $by, string $import): Requirement
    {
        if (null !== $requirement->load('parent')->parent?->dropped_at) {
            $this->save->move($requirement, $by, null, null, $import);
        }

        return $this->save->drop($requirement->refresh(), $by, false, $import);
    }

    /**
     * @param  array<string, true>  $stay
     */
    private function dropOrStay(Requirement $one, User $by, string $import, array &$stay): void
    {
        try {
            $this->save->drop($one, $by, true, $import);
        } catch (RequirementConflict) {
            // Others were put below it since.
            $stay[$one->key] = true;
        }
    }

    /**
     * @return array<string, true> requirements that somebody else changed after the import, by id
     */
    private function touchedSince(string $import): array
    {
        $last = DB::table('requirement_log')->where('import_id', $import)->orderByDesc('id')->value('id');

        return array_fill_keys(
            array_map(
                strval(...),
                DB::table('requirement_log')
                    ->whereIn('requirement_id', DB::table('requirement_log')->where('import_id', $import)->select('requirement_id'))
                    ->where('id', '>', $last)
                    ->where('kind', '<>', 'confirmed')
                    ->distinct()
                    ->pluck('requirement_id')
                    ->all(),
            ),
            true,
        );
    }

    /**
     * @param  array<array-key, mixed>  $changes
     */
    private static function was(array $changes, string $field): ?string
    {
        $value = ((array) ($changes[$field] ?? []))[0] ?? null;

        return \is_string($value) ? $value : null;
    }

    /**
     * @param  array<array-key, mixed>  $changes
     */
    private static function wordsBefore(RequirementWords $now, array $changes): RequirementWords
    {
        $details = ((array) ($changes['details'] ?? [$now->details]))[0] ?? [];

        return new RequirementWords(
            isset($changes['title']) ? (string) self::was($changes, 'title') : $now->title,
            isset($changes['text']) ? (string) self::was($changes, 'text') : $now->text,
            \array_key_exists('external_id', $changes) ? self::was($changes, 'external_id') : $now->externalId,
            array_map(strval(...), (array) $details),
        );
    }
}
