<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

use LucidStep\Core\Casebook\Step;

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

    /** @var list<ReadError> */
    private array $errors = [];

    /** @var array<string, mixed> */
    private array $fields = [];

    /** @var list<Step> */
    private array $steps = [];

    private ?string $key = null;

    private int $row = 0;

    private readonly bool $hasSteps;

    /** Knows which words the file has that the project has not. */
    public readonly FieldReader $cells;

    /**
     * @param  list<?string>  $mapping a target of {@see CaseColumns} for each column
     * @param  'step'|'case'  $layout
     */
    public function __construct(private readonly array $mapping, private readonly string $layout, ImportContext $around)
    {
        $this->cells = new FieldReader($around);
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
            try {
                $this->fields[$target] = $this->cells->read($target, $value);
            } catch (\DomainException $e) {
                $this->error($target, $e->getMessage());
            }
        }
        if ('' === $this->title() && (null === $this->key || \array_key_exists('title', $values))) {
            $this->error('title', 'There is no title.');
        }
    }

    private function title(): string
    {
        return \is_string($this->fields['title'] ?? null) ? $this->fields['title'] : '';
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
        $id = '';
        try {
            $id = $this->cells->routine($routine);
        } catch (\DomainException $e) {
            $this->error('routine', $e->getMessage(), $row);
        }

        return new Step('', '', '', [], $id, self::values($values));
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

    private function error(string $column, string $message, ?int $row = null): void
    {
        if (\count($this->errors) < 50) {
            $this->errors[] = new ReadError($row ?? $this->row, $column, $message);
        }
    }
}
