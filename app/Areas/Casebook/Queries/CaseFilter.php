<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Queries;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\MessageState;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Suite;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Support\Paging\WordFilter;
use LucidStep\Core\Text\ItemList;

/**
 * Which cases of a project are meant: the same words in an address, a saved filter, a suite by rule and an act on many.
 */
final readonly class CaseFilter
{
    /** What can be asked, and what for. Several values are separated by commas, one with a comma in quotes: any of them fits. */
    public const PARAMETERS = [
        'q' => 'Words of the title, the steps and the other texts, each may be cut short; or a key',
        'folder' => 'In this folder (id; "none" for cases in no folder)',
        'deep' => 'yes: and in the folders below it',
        'state' => 'draft, in_review, approved, retired',
        'type' => 'Types',
        'priority' => 'Priorities',
        'owner' => 'Ids of owners, "none", or "me"',
        'label' => 'Labels: all of them',
        'automated' => 'yes or no',
        'template' => 'yes or no',
        'estimate' => 'yes or no: whether the author gave one',
        'table' => 'Bound to this data table (id), "any" or "none"',
        'routine' => 'Using this routine (id)',
        'requirement' => 'Linked to these requirements (ids), or "none"',
        'suite' => 'In this suite as it was accepted (id)',
        'walked' => 'never, or a number of days: not finished for that long',
        'changed' => 'A number of days: changed since',
        'author_asked' => 'yes: with open questions or suggestions',
        'errors' => 'yes: with an error in the text, so that they cannot be walked',
        'bin' => 'yes: those in the bin, and only those',
        'ids' => 'These cases (ids)',
    ];

    /** Filters on custom fields are given as `field.<id>`. */
    public const FIELD = 'field.';

    /**
     * @param  array<string, string>  $asked
     */
    private function __construct(public Project $project, private ?string $me, public array $asked) {}

    /**
     * @param  array<array-key, mixed>  $asked what is not known or empty is left out
     */
    public static function from(Project $project, array $asked, ?string $me = null): self
    {
        $known = [];
        foreach ($asked as $name => $value) {
            $name = str_starts_with((string) $name, 'field_') ? self::FIELD . substr((string) $name, 6) : (string) $name;
            if (self::isKnown($name) && \is_scalar($value) && '' !== trim((string) $value)) {
                $known[$name] = trim(mb_strcut((string) $value, 0, 'ids' === $name ? 400_000 : 2000));
            }
        }
        ksort($known);

        return new self($project, $me, $known);
    }

    /**
     * Whether there is a filter of that name.
     */
    public static function isKnown(string $name): bool
    {
        return isset(self::PARAMETERS[$name]) || str_starts_with($name, self::FIELD);
    }

    /**
     * @return Builder<TestCase>
     */
    public function query(): Builder
    {
        $query = TestCase::query()->where('cases.project_id', $this->project->id);
        'yes' === ($this->asked['bin'] ?? '') ? $query->whereNotNull('cases.binned_at') : $query->whereNull('cases.binned_at');
        foreach ($this->asked as $name => $value) {
            $this->narrow($query, $name, $value);
        }

        return $query;
    }

    /**
     * What is searched for, as `lucid_query` takes it; null when there are no words.
     */
    public function searchWords(): ?string
    {
        if (null !== $this->key()) {
            return null;
        }
        $terms = [];
        foreach (preg_split('/\s+/u', $this->asked['q'] ?? '', -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
            if (1 === preg_match('/[\p{L}\p{N}]/u', $word)) {
                $terms[] = '"' . addcslashes($word, '"\\') . '"';
            }
        }

        return [] === $terms ? null : '{' . implode(',', \array_slice($terms, 0, 12)) . '}';
    }

    /**
     * @param  Builder<TestCase>  $query
     */
    private function narrow(Builder $query, string $name, string $value): void
    {
        $values = ItemList::read($value);
        $ids = array_values(array_filter($values, Str::isUuid(...)));
        $yes = 'yes' === $value;
        if (str_starts_with($name, self::FIELD)) {
            $field = substr($name, \strlen(self::FIELD));
            if ('none' === $value) {
                $query->whereRaw('not jsonb_exists(cases.custom, ?)', [$field]);
            } else {
                $query->where(static function (Builder $q) use ($values, $field): void {
                    foreach ($values as $one) {
                        $q->orWhereRaw('cases.custom @> ?::jsonb', [json_encode([$field => $one], \JSON_THROW_ON_ERROR)]);
                    }
                });
            }

            return;
        }
        match ($name) {
            'q' => $this->search($query),
            'folder' => $this->folder($query, $value),
            'state', 'type', 'priority' => $query->whereIn("cases.{$name}", $values),
            'owner' => $query->where(
                fn(Builder $q) => $q
                    ->whereIn('cases.owner_id', \in_array('me', $values, true) && null !== $this->me ? [...$ids, $this->me] : $ids)
                    ->when(\in_array('none', $values, true), static fn(Builder $q) => $q->orWhereNull('cases.owner_id')),
            ),
            'label' => $query->whereRaw('cases.labels @> ?::jsonb', [json_encode($values, \JSON_THROW_ON_ERROR)]),
            'automated' => $query->where('cases.automated', $yes),
            'template' => $query->where('cases.is_template', $yes),
            'estimate' => $yes ? $query->whereNotNull('cases.estimate_seconds') : $query->whereNull('cases.estimate_seconds'),
            'table' => match ($value) {
                'any' => $query->whereNotNull('cases.table_id'),
                'none' => $query->whereNull('cases.table_id'),
                default => $query->whereIn('cases.table_id', $ids),
            },
            'routine' => $query->whereIn(
                'cases.version_id',
                DB::table('steps')->whereIn('routine_id', $ids)->whereNotNull('case_version_id')->select('case_version_id'),
            ),
            'requirement' => 'none' === $value
                ? $query->whereNotIn('cases.id', DB::table('case_requirements')->select('case_id'))
                : $query->whereIn('cases.id', DB::table('case_requirements')->whereIn('requirement_id', $ids)->select('case_id')),
            'suite' => $query->whereIn(
                'cases.id',
                DB::table('suite_cases')
                    ->whereIn('suite_id', Suite::query()->where('project_id', $this->project->id)->whereIn('id', $ids)->pluck('id'))
                    ->select('case_id'),
            ),
            'walked' => 'never' === $value
                ? $query->whereNull('cases.last_walked_at')
                : $query->where('cases.last_walked_at', '<', Carbon::now()->subDays(max(0, min(36500, (int) $value)))),
            'changed' => $query->where('cases.updated_at', '>=', Carbon::now()->subDays(max(0, min(36500, (int) $value)))),
            'author_asked' => $query->whereIn(
                'cases.id',
                DB::table('case_messages')->where('project_id', $this->project->id)->where('state', MessageState::Open)->select('case_id'),
            ),
            'errors' => $this->errors($query),
            'ids' => $query->whereIn('cases.id', $ids),
            default => null,
        };
    }

    /**
     * @param  Builder<TestCase>  $query
     */
    private function errors(Builder $query): void
    {
        app(TextChecks::class)->complete($this->project->id);
        $query->whereIn('cases.version_id', DB::table('text_checks')->where('errors', '<>', '[]')->select('case_version_id'));
    }

    /**
     * The key, or the beginning of one, that is looked for.
     */
    private function key(): ?string
    {
        $word = mb_strtoupper($this->asked['q'] ?? '');

        return 1 === preg_match('/^' . preg_quote($this->project->code, '/') . '-C\d+$/D', $word) ? $word : null;
    }

    /**
     * @param  Builder<TestCase>  $query
     */
    private function search(Builder $query): void
    {
        $words = $this->searchWords();
        $key = $this->key();
        if (null !== $key) {
            // A key is looked up by itself: all keys begin alike, so that words would have to look at every case.
            $query->where('cases.key', 'like', "{$key}%");
        } elseif (null === $words) {
            WordFilter::holds($query, $this->asked['q'], 'cases.folded');
        } else {
            $query->whereRaw('cases.search @@ lucid_query(?)', [$words]);
        }
    }

    /**
     * @param  Builder<TestCase>  $query
     */
    private function folder(Builder $query, string $value): void
    {
        if (!Str::isUuid($value)) {
            $query->whereNull('cases.folder_id');
        } elseif ('yes' === ($this->asked['deep'] ?? '')) {
            $query->whereIn('cases.folder_id', (new FolderPaths($this->project))->below($value));
        } else {
            $query->where('cases.folder_id', $value);
        }
    }
}
