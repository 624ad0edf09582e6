<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Data\Names;
use LucidStep\Core\Forecast\Duration;
use LucidStep\Core\Forecast\NotADuration;
use LucidStep\Core\Text\ItemList;

/**
 * Makes cases of the rows of a file, one after another, with what is wrong with each.
 */
final class CaseReader
{
    /** One row for each step: a row with a title (or key) begins a case, rows without add steps to it. */
    public const BY_STEP = 'step';

    /** One row for each case: numbered lines in one cell are its steps. */
    public const BY_CASE = 'case';

    public const LONGEST_TITLE = 300;

    public const LONGEST_CELL = 20_000;

    public const MOST_STEPS = 500;

    public const MOST_LABELS = 50;

    public const LONGEST_LABEL = 60;

    /** @var list<ReadError> */
    private array $errors = [];

    /** @var array<string, mixed> */
    private array $fields = [];

    /** @var list<Step> */
    private array $steps = [];

    private ?string $key = null;

    private int $row = 0;

    private readonly bool $hasSteps;

    /**
     * @param  list<?string>  $mapping a target of {@see CaseColumns} for each column
     * @param  'step'|'case'  $layout
     */
    public function __construct(private readonly array $mapping, private readonly string $layout, private readonly ImportContext $around)
    {
        $this->hasSteps = [] !== array_intersect($mapping, CaseColumns::STEP);
    }

    /**
     * The layout that the rows seem to have: by case when a cell of actions holds numbered lines.
     *
     * @param  iterable<list<string>>  $rows    without the header
     * @param  list<?string>  $mapping
     *
     * @return 'step'|'case'
     */
    public static function layoutOf(iterable $rows, array $mapping): string
    {
        $title = array_search('title', $mapping, true);
        $key = array_search('key', $mapping, true);
        $action = array_search('action', $mapping, true);
        $many = $without = $all = 0;
        foreach ($rows as $cells) {
            $text = false === $action ? '' : $cells[$action] ?? '';
            $many += NumberedLines::isNumbered($text) && str_contains($text, "\n") ? 1 : 0;
            $without += '' === trim((string) ($cells[$title] ?? '')) && '' === trim((string) ($cells[$key] ?? '')) ? 1 : 0;
            if (++$all >= 500) {
                break;
            }
        }

        return $many > 0 && $many >= $without ? self::BY_CASE : self::BY_STEP;
    }

    /**
     * @param  iterable<int, list<string>>  $rows by number of the record, without the header
     *
     * @return \Generator<int, CaseRow>
     */
    public function cases(iterable $rows): \Generator
    {
        foreach ($rows as $row => $cells) {
            $wide = \count($this->mapping);
            if ([] === array_filter($cells, static fn(string $c): bool => '' !== trim($c))) {
                continue;
            }
            $extra = array_filter(\array_slice($cells, $wide), static fn(string $c): bool => '' !== trim($c));
            $ragged =
                [] !== $extra || \count($cells) < $wide
                    ? new ReadError($row, null, \sprintf('%d cells, but the header has %d.', \count($cells), $wide))
                    : null;
            $values = [];
            foreach ($this->mapping as $at => $target) {
                if (null !== $target) {
                    $values[$target] = trim(Cell::read($cells[$at] ?? ''));
                }
            }
            $begins = self::BY_CASE === $this->layout || '' !== ($values['title'] ?? '') || '' !== ($values['key'] ?? '');
            if ($begins && $this->isAgain($values)) {
                $values = array_intersect_key($values, array_flip(CaseColumns::STEP));
                $begins = false;
            }
            if ($begins) {
                if ($this->row > 0) {
                    yield $this->take();
                }
                $this->begin($row, $values);
            } elseif (0 === $this->row) {
                $this->begin($row, $values);
            } else {
                $this->refuseCaseFields($row, $values);
            }
            if (null !== $ragged) {
                $this->errors[] = $ragged;
            }
            $this->addSteps($row, $values);
        }
        if ($this->row > 0) {
            yield $this->take();
        }
    }

    /**
     * Whether a row of a step names its case again, as some files do on every row.
     *
     * @param  array<string, string>  $values
     */
    private function isAgain(array $values): bool
    {
        $title = (string) preg_replace('/\s+/u', ' ', $values['title'] ?? '');

        return self::BY_STEP === $this->layout &&
            $this->row > 0 &&
            ('' === $title || $title === $this->title()) &&
            ('' === ($values['key'] ?? '')
                ? null === $this->key || !\array_key_exists('key', $values)
                : mb_strtoupper($values['key']) === $this->key);
    }

    private function take(): CaseRow
    {
        $case = new CaseRow($this->row, $this->key, $this->fields, $this->hasSteps ? $this->steps : null, $this->errors);
        $this->row = 0;

        return $case;
    }

    /**
     * @param  array<string, string>  $values
     */
    private function begin(int $row, array $values): void
    {
        $this->row = $row;
        $this->errors = $this->steps = $this->fields = [];
        $this->key = '' === ($values['key'] ?? '') ? null : mb_strtoupper($values['key']);
        foreach ($values as $target => $value) {
            if ('key' === $target || \in_array($target, CaseColumns::STEP, true)) {
                continue;
            }
            if (mb_strlen($value) > ('title' === $target ? self::LONGEST_TITLE : self::LONGEST_CELL)) {
                $this->error(
                    $target,
                    \sprintf('Longer than %d characters.', 'title' === $target ? self::LONGEST_TITLE : self::LONGEST_CELL),
                );

                continue;
            }
            $this->field($target, $value);
        }
        if ('' === $this->title() && (null === $this->key || \array_key_exists('title', $values))) {
            $this->error('title', 'There is no title.');
        }
    }

    private function title(): string
    {
        return \is_string($this->fields['title'] ?? null) ? $this->fields['title'] : '';
    }

    private function field(string $target, string $value): void
    {
        if (str_starts_with($target, CaseColumns::CUSTOM)) {
            $field = $this->around->fields[mb_strtolower(substr($target, \strlen(CaseColumns::CUSTOM)))] ?? null;
            try {
                $this->fields[$target] = $field?->take($value) ?? '';
            } catch (\DomainException $e) {
                $this->error($target, $e->getMessage());
            }

            return;
        }
        $this->fields[$target] = match ($target) {
            'title' => (string) preg_replace('/\s+/u', ' ', $value),
            'folder' => $this->folder($value),
            'labels' => $this->labels($value),
            'requirements' => $this->requirements($value),
            'type' => $this->around->types[mb_strtolower($value)] ?? mb_strtolower($value),
            'priority' => $this->lookUp($target, $value, $this->around->priorities),
            'state' => $this->state($value),
            'automated', 'template' => \in_array(mb_strtolower($value), ['yes', 'true', '1', 'y', 'automated', 'automatic'], true),
            'owner' => $this->lookUp($target, $value, $this->around->people),
            'table' => $this->lookUp($target, $value, $this->around->tables),
            'estimate' => $this->estimate($value),
            default => $value,
        };
    }

    /**
     * @param  array<string, string>  $known
     */
    private function lookUp(string $target, string $value, array $known, ?int $row = null): ?string
    {
        if ('' === $value) {
            return null;
        }
        $found = $known[mb_strtolower($value)] ?? null;
        if (null === $found) {
            $nearest = Names::nearest($value, array_map(strval(...), array_keys($known)));
            $this->error(
                $target,
                \sprintf('"%s" is not there.', mb_strimwidth($value, 0, 60, '…')) .
                    match (true) {
                        null !== $nearest => " Did you mean \"{$nearest}\"?",
                        'priority' === $target => ' Known are: ' . implode(', ', array_keys($known)) . '.',
                        default => '',
                    },
                $row,
            );
        }

        return $found;
    }

    private function state(string $value): ?string
    {
        $state = CaseState::fromWords($value);
        if ('' !== $value && null === $state) {
            $this->error('state', \sprintf('"%s" is not one of: draft, in review, approved, retired.', mb_strimwidth($value, 0, 40, '…')));
        }

        return $state?->value;
    }

    private function estimate(string $value): ?int
    {
        if ('' === $value) {
            return null;
        }
        try {
            return intdiv(Duration::fromText($value)->milliseconds, 1000);
        } catch (NotADuration $e) {
            $this->error('estimate', $e->getMessage());

            return null;
        }
    }

    /**
     * @return list<string>
     */
    private function labels(string $value): array
    {
        $labels = array_values(array_unique(ItemList::read($value)));
        if (\count($labels) > self::MOST_LABELS) {
            $this->error('labels', \sprintf('%d labels; a case takes at most %d.', \count($labels), self::MOST_LABELS));
        }
        foreach ($labels as $label) {
            if (mb_strlen($label) > self::LONGEST_LABEL) {
                $this->error(
                    'labels',
                    \sprintf('"%s" is longer than %d characters.', mb_strimwidth($label, 0, 40, '…'), self::LONGEST_LABEL),
                );
            }
        }

        return $labels;
    }

    /**
     * @return list<string> outermost first
     */
    private function folder(string $value): array
    {
        // A slash within a name stands behind a backslash.
        $path = array_map(static fn(string $p): string => str_replace('\/', '/', $p), self::split('#(?<!\\\\)/#', $value));
        if (\count($path) > 12) {
            $this->error('folder', 'Folders stand at most 12 deep.');
        }
        foreach ($path as $name) {
            if (mb_strlen($name) > 120) {
                $this->error(
                    'folder',
                    \sprintf('The folder "%s" has a name longer than 120 characters.', mb_strimwidth($name, 0, 40, '…')),
                );
            }
        }

        return $path;
    }

    /**
     * @param  array<string, string>  $values
     */
    private function refuseCaseFields(int $row, array $values): void
    {
        foreach ($values as $target => $value) {
            if ('' !== $value && !\in_array($target, CaseColumns::STEP, true)) {
                $this->error($target, 'Belongs on the first row of a case, beside its title.', $row);
            }
        }
    }

    /**
     * @param  array<string, string>  $values
     */
    private function addSteps(int $row, array $values): void
    {
        $action = $values['action'] ?? '';
        $data = $values['data'] ?? '';
        $expected = $values['expected'] ?? '';
        $routine = $values['routine'] ?? '';
        if ('' === $action . $data . $expected . $routine) {
            return;
        }
        foreach (['action' => $action, 'data' => $data, 'expected' => $expected] as $target => $text) {
            if (mb_strlen($text) > self::LONGEST_CELL) {
                $this->error($target, \sprintf('Longer than %d characters.', self::LONGEST_CELL), $row);
            }
        }
        if (self::BY_CASE === $this->layout && ('' === $routine || NumberedLines::isNumbered($routine))) {
            $this->addNumbered($row, $values);
        } elseif ('' !== $routine) {
            $this->steps[] = $this->use($routine, $values['values'] ?? '', $row);
        } else {
            $this->steps[] = new Step($action, $data, $expected);
        }
        if (self::MOST_STEPS + 1 === \count($this->steps)) {
            $this->error('action', \sprintf('A case takes at most %d steps.', self::MOST_STEPS), $row);
        }
    }

    /**
     * Steps as numbered lines; those with a routine of their number use that.
     *
     * @param  array<string, string>  $values
     */
    private function addNumbered(int $row, array $values): void
    {
        $steps = NumberedLines::steps($values['action'] ?? '', $values['data'] ?? '', $values['expected'] ?? '');
        $given = NumberedLines::split($values['values'] ?? '');
        foreach (array_filter(NumberedLines::split($values['routine'] ?? '')) as $number => $name) {
            while (\count($steps) < $number) {
                $steps[] = new Step('', '', '');
            }
            $own = $steps[$number - 1];
            $steps[$number - 1] = $this->use($name, $given[$number] ?? '', $row);
            if ('' !== $own->action . $own->data . $own->expected) {
                $this->error('routine', "Step {$number} is a routine and has an action of its own.", $row);
            }
        }
        if ([] === $steps) {
            $this->error('action', 'There is a result without a step.', $row);
        }
        array_push($this->steps, ...$steps);
    }

    private function use(string $routine, string $values, int $row): Step
    {
        return new Step('', '', '', [], $this->lookUp('routine', $routine, $this->around->routines, $row) ?? '', self::values($values));
    }

    /**
     * Names of requirements: by key, by title, or both as they go out. A key that is not there is nobody's title.
     *
     * @return list<string>
     */
    private function requirements(string $value): array
    {
        $named = [];
        foreach (ItemList::read($value) as $name) {
            $isKey = 1 === preg_match('/^(\p{L}[\p{L}\p{N}]*-Q\d+)(?:\s+(.+))?$/uDi', $name, $m);
            if (!$isKey || isset($this->around->requirements[mb_strtolower($name)])) {
                $named[] = $name;
            } elseif (isset($this->around->requirements[mb_strtolower($m[1])])) {
                $named[] = $m[1];
            } elseif (isset($m[2])) {
                $named[] = $m[2];
            } else {
                $this->error('requirements', "There is no requirement {$name} here. Write its title behind it, or take it out.");
            }
        }

        return $named;
    }

    /**
     * @return array<string, string>
     */
    public static function values(string $text): array
    {
        $values = [];
        foreach (explode("\n", $text) as $line) {
            if (1 === preg_match('/^\s*([\p{L}\p{N}_]+)\s*=\s?(.*)$/u', $line, $m)) {
                $values[mb_strtolower($m[1])] = strtr($m[2], ['\n' => "\n", '\\\\' => '\\']);
            }
        }
        ksort($values);

        return $values;
    }

    /**
     * @return list<string>
     */
    private static function split(string $pattern, string $text): array
    {
        return array_values(array_filter(array_map(trim(...), preg_split($pattern, $text) ?: []), static fn(string $p): bool => '' !== $p));
    }

    private function error(string $column, string $message, ?int $row = null): void
    {
        if (\count($this->errors) < 50) {
            $this->errors[] = new ReadError($row ?? $this->row, $column, $message);
        }
    }
}
