<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Exchange;

use Illuminate\Support\Str;
use LucidStep\App\Areas\Defects\Data\DefectCommentLine;
use LucidStep\App\Areas\Defects\Queries\DefectAsText;
use LucidStep\App\Areas\Defects\Queries\DefectFilter;
use LucidStep\App\Areas\Defects\Queries\DefectTalk;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Project;
use LucidStep\Core\Casebook\CustomField;
use LucidStep\Core\Exchange\CsvWriter;
use LucidStep\Core\Text\ItemList;

/**
 * Writes the defects that fit a filter, as rows of CSV, as JSON with their talk, or as text to read and print. They are read a part at a
 * time, however many there are.
 */
final readonly class WriteDefects
{
    /** Formats with their type and whether they hold the talk. */
    public const TYPES = [
        'csv' => 'text/csv; charset=utf-8',
        'json' => 'application/json',
        'md' => 'text/markdown; charset=utf-8',
        'txt' => 'text/plain; charset=utf-8',
        'html' => 'text/html; charset=utf-8',
    ];

    /** What every defect has, in order. */
    public const COLUMNS = [
        'key',
        'title',
        'state',
        'severity',
        'priority',
        'assignee',
        'reporter',
        'reported',
        'changed',
        'case',
        'build',
        'configuration',
        'environment',
        'component',
        'labels',
        'fixed_in',
        'duplicate_of',
        'preconditions',
        'steps',
        'expected',
        'actual',
        'body',
    ];

    private const AT_ONCE = 200;

    public function __construct(private DefectAsText $text) {}

    /**
     * @param  key-of<self::TYPES>  $format
     * @param  resource  $out
     */
    public function __invoke(Project $project, DefectFilter $filter, string $format, $out): void
    {
        $lists = new ProjectLists($project);
        $fields = array_values($lists->fields('defect'));
        $components = array_column($lists->items('component'), 'name', 'value');
        match ($format) {
            'csv' => $this->csv($filter, $fields, $components, $out),
            'json' => $this->json($filter, $fields, $components, $out),
            'html' => $this->page($project, $filter, $out),
            default => $this->texts($filter, $format, $out),
        };
    }

    /**
     * @return iterable<Defect> the newest first
     */
    private function defects(DefectFilter $filter): iterable
    {
        foreach ($this->parts($filter) as $part) {
            yield from $part;
        }
    }

    /**
     * @return iterable<list<Defect>> some at a time
     */
    private function parts(DefectFilter $filter): iterable
    {
        foreach ($filter->query()->orderByDesc('number')->pluck('defects.id')->chunk(self::AT_ONCE) as $some) {
            yield array_values(
                Defect::query()
                    ->whereKey($some->all())
                    ->with('reporter', 'assignee', 'case', 'build', 'configuration', 'fixedBuild', 'duplicateOf')
                    ->orderByDesc('number')
                    ->get()
                    ->all(),
            );
        }
    }

    /**
     * @param  list<CustomField>  $fields
     * @param  array<string, string>  $components
     *
     * @return array{array<string, string>, array<string, string>} by column, and fields of the project by their names
     */
    private static function row(Defect $d, array $fields, array $components): array
    {
        $row = array_combine(self::COLUMNS, [
            $d->key,
            $d->title,
            $d->state->value,
            $d->severity,
            $d->priority ?? '',
            $d->assignee->name ?? '',
            $d->reporter->name,
            $d->created_at->toIso8601ZuluString(),
            $d->updated_at->toIso8601ZuluString(),
            $d->case->key ?? '',
            $d->build->name ?? '',
            $d->configuration->name ?? '',
            $d->environment,
            $components[$d->component] ?? $d->component,
            ItemList::write($d->labels),
            $d->fixedBuild->name ?? '',
            $d->duplicateOf->key ?? '',
            $d->preconditions,
            $d->steps,
            $d->expected,
            $d->actual,
            $d->body,
        ]);
        $own = [];
        foreach ($fields as $field) {
            $own[$field->name] = $d->custom[$field->id] ?? '';
        }

        return [$row, $own];
    }

    /**
     * @param  list<CustomField>  $fields
     * @param  array<string, string>  $components
     * @param  resource  $out
     */
    private function csv(DefectFilter $filter, array $fields, array $components, $out): void
    {
        $own = array_map(static fn(CustomField $f): string => $f->name, $fields);
        $rows = function () use ($filter, $fields, $components, $own): \Generator {
            yield [...self::COLUMNS, ...$own];
            foreach ($this->defects($filter) as $defect) {
                $row = self::row($defect, $fields, $components);
                yield [...$row[0], ...$row[1]];
            }
        };
        CsvWriter::write($out, $rows());
    }

    /**
     * @param  list<CustomField>  $fields
     * @param  array<string, string>  $components
     * @param  resource  $out
     */
    private function json(DefectFilter $filter, array $fields, array $components, $out): void
    {
        $between = '[';
        foreach ($this->parts($filter) as $part) {
            $talk = DefectTalk::ofMany(array_column($part, 'id'));
            foreach ($part as $defect) {
                [$row, $own] = self::row($defect, $fields, $components);
                $comments = array_map(
                    static fn(DefectCommentLine $c): array => ['by' => $c->author->name, 'at' => $c->at, 'text' => $c->text],
                    $talk[$defect->id] ?? [],
                );
                $all = [...$row, 'fields' => (object) $own, 'labels' => $defect->labels, 'comments' => $comments];
                $json = json_encode($all, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES);
                fwrite($out, "{$between}\n{$json}");
                $between = ',';
            }
        }
        fwrite($out, '[' === $between ? "[]\n" : "\n]\n");
    }

    /**
     * @param  resource  $out
     */
    private function texts(DefectFilter $filter, string $format, $out): void
    {
        $between = '';
        foreach ($this->defects($filter) as $defect) {
            fwrite($out, $between . ('md' === $format ? $this->text->markdown($defect) : $this->text->plain($defect)));
            $between = 'md' === $format ? "\n---\n\n" : "\n" . str_repeat('=', 72) . "\n\n";
        }
    }

    /**
     * @param  resource  $out
     */
    private function page(Project $project, DefectFilter $filter, $out): void
    {
        fwrite($out, view('print-head', ['title' => "{$project->name}: defects"])->render());
        foreach ($this->defects($filter) as $defect) {
            // A list would be numbered anew: steps keep the numbers that they have in their case.
            $text = (string) preg_replace('/^(\d+)\. /m', "\n$1\\. ", $this->text->markdown($defect));
            $html = Str::markdown($text, ['html_input' => 'escape', 'allow_unsafe_links' => false]);
            fwrite($out, "<article>\n{$html}</article>\n");
        }
        fwrite($out, "</body>\n</html>\n");
    }
}
