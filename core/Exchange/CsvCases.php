<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

use LucidStep\Core\Forecast\Duration;
use LucidStep\Core\Forecast\NotADuration;

/**
 * Reads cases from CSV (RFC 4180, UTF-8), one row per step: a row with a title begins a case, rows without
 * one add steps to it. All of the file is read, or nothing of it is.
 */
final class CsvCases
{
    public const COLUMNS = ['title', 'folder', 'objective', 'preconditions', 'postconditions', 'type', 'priority', 'state', 'labels', 'estimate', 'action', 'data', 'expected'];

    public const PRIORITIES = ['critical', 'high', 'medium', 'low'];

    public const STATES = ['draft', 'in_review', 'approved', 'retired'];

    private const LONGEST_TITLE = 300;

    private const LONGEST_CELL = 20_000;

    /** @var list<ReadError> */
    private array $errors = [];

    private function __construct()
    {
    }

    /**
     * @return list<CaseRow> in the file's order
     *
     * @throws CasesUnreadable with every fault by row and column
     */
    public static function read(string $csv): array
    {
        return (new self())->all($csv);
    }

    /**
     * @return list<CaseRow>
     */
    private function all(string $csv): array
    {
        $csv = str_starts_with($csv, "\xEF\xBB\xBF") ? substr($csv, 3) : $csv;
        if (!mb_check_encoding($csv, 'UTF-8')) {
            throw new CasesUnreadable([new ReadError(1, null, 'The file is not UTF-8 text.')]);
        }
        if (str_contains($csv, "\0")) {
            throw new CasesUnreadable([new ReadError(1, null, 'The file is not text: it holds zero bytes.')]);
        }
        if (!self::quotesClose($csv)) {
            throw new CasesUnreadable([new ReadError(substr_count($csv, "\n") + 1, null, 'A quoted cell is not closed before the end of the file.')]);
        }
        $rows = self::rows($csv);
        $header = array_map(static fn (?string $name): string => mb_strtolower(trim((string) $name)), array_shift($rows) ?? []);
        $this->checkHeader($header);
        $this->stopOnErrors();
        $cases = [];
        $open = null;
        foreach ($rows as $i => $cells) {
            $row = $i + 2;
            if ([] === array_filter($cells, static fn (?string $c): bool => '' !== trim((string) $c))) {
                continue;
            }
            if (\count($cells) !== \count($header)) {
                $this->errors[] = new ReadError($row, null, \sprintf('%d cells, but the header has %d.', \count($cells), \count($header)));

                continue;
            }
            $fields = [];
            foreach ($header as $at => $name) {
                $fields[$name] = trim(str_replace(["\r\n", "\r"], "\n", (string) $cells[$at]));
                if (mb_strlen($fields[$name]) > self::LONGEST_CELL) {
                    $this->errors[] = new ReadError($row, $name, \sprintf('Longer than %d characters.', self::LONGEST_CELL));
                }
            }
            if ('' !== $fields['title']) {
                if (null !== $open) {
                    $cases[] = $open;
                }
                $open = $this->case($fields, $row);
            } elseif (null === $open) {
                $this->errors[] = new ReadError($row, 'title', 'The first case has no title.');

                continue;
            } else {
                $this->refuseCaseFields($fields, $row);
            }
            $open = $this->withStep($open, $fields, $row);
        }
        if (null !== $open) {
            $cases[] = $open;
        }
        if ([] === $cases && [] === $this->errors) {
            $this->errors[] = new ReadError(2, null, 'There is no case in the file.');
        }
        $this->stopOnErrors();

        return $cases;
    }

    /**
     * @return list<list<?string>>
     */
    private static function rows(string $csv): array
    {
        $stream = fopen('php://temp', 'r+');
        if (false === $stream) {
            throw new \RuntimeException('No temporary stream.');
        }
        fwrite($stream, $csv);
        rewind($stream);
        $rows = [];
        while (false !== ($cells = fgetcsv($stream, null, ',', '"', ''))) {
            $rows[] = $cells;
        }
        fclose($stream);

        return $rows;
    }

    private static function quotesClose(string $csv): bool
    {
        return 0 === substr_count($csv, '"') % 2;
    }

    /**
     * @param  list<string>  $header
     */
    private function checkHeader(array $header): void
    {
        foreach (['title', 'action', 'expected'] as $needed) {
            if (!\in_array($needed, $header, true)) {
                $this->errors[] = new ReadError(1, $needed, "The column \"{$needed}\" is missing.");
            }
        }
        foreach (array_count_values($header) as $name => $times) {
            if (!\in_array($name, self::COLUMNS, true)) {
                $this->errors[] = new ReadError(1, (string) $name, \sprintf('"%s" is not a known column. Known are: %s.', $name, implode(', ', self::COLUMNS)));
            } elseif ($times > 1) {
                $this->errors[] = new ReadError(1, (string) $name, "The column \"{$name}\" stands there {$times} times.");
            }
        }
    }

    /**
     * @param  array<string, string>  $fields
     */
    private function case(array $fields, int $row): CaseRow
    {
        if (mb_strlen($fields['title']) > self::LONGEST_TITLE) {
            $this->errors[] = new ReadError($row, 'title', \sprintf('Longer than %d characters.', self::LONGEST_TITLE));
        }

        return new CaseRow(
            $fields['title'],
            self::split('/', $fields['folder'] ?? ''),
            $fields['objective'] ?? '',
            $fields['preconditions'] ?? '',
            $fields['postconditions'] ?? '',
            '' === ($fields['type'] ?? '') ? 'functional' : mb_strtolower($fields['type']),
            $this->oneOf($fields, 'priority', self::PRIORITIES, 'medium', $row),
            $this->oneOf($fields, 'state', self::STATES, 'draft', $row),
            self::split(',', $fields['labels'] ?? ''),
            $this->estimate($fields['estimate'] ?? '', $row),
            [],
            $row,
        );
    }

    /**
     * @param  array<string, string>  $fields
     * @param  list<string>  $allowed
     */
    private function oneOf(array $fields, string $column, array $allowed, string $default, int $row): string
    {
        $value = str_replace(' ', '_', mb_strtolower($fields[$column] ?? ''));
        if ('' === $value) {
            return $default;
        }
        if (!\in_array($value, $allowed, true)) {
            $this->errors[] = new ReadError($row, $column, \sprintf('"%s" is not one of: %s.', $fields[$column], str_replace('_', ' ', implode(', ', $allowed))));
        }

        return $value;
    }

    private function estimate(string $text, int $row): ?int
    {
        if ('' === $text) {
            return null;
        }
        try {
            return intdiv(Duration::fromText($text)->milliseconds, 1000);
        } catch (NotADuration $e) {
            $this->errors[] = new ReadError($row, 'estimate', $e->getMessage());

            return null;
        }
    }

    /**
     * @param  array<string, string>  $fields
     */
    private function refuseCaseFields(array $fields, int $row): void
    {
        foreach (['folder', 'objective', 'preconditions', 'postconditions', 'type', 'priority', 'state', 'labels', 'estimate'] as $column) {
            if ('' !== ($fields[$column] ?? '')) {
                $this->errors[] = new ReadError($row, $column, 'Belongs on the first row of a case, beside its title.');
            }
        }
    }

    /**
     * @param  array<string, string>  $fields
     */
    private function withStep(CaseRow $case, array $fields, int $row): CaseRow
    {
        $step = new StepRow($fields['action'], $fields['data'] ?? '', $fields['expected']);
        if ('' === $step->action.$step->data.$step->expected) {
            return $case;
        }
        if ('' === $step->action) {
            $this->errors[] = new ReadError($row, 'action', 'A step needs an action.');
        }

        return new CaseRow(
            $case->title, $case->folder, $case->objective, $case->preconditions, $case->postconditions, $case->type,
            $case->priority, $case->state, $case->labels, $case->estimate, [...$case->steps, $step], $case->row,
        );
    }

    /**
     * @param  non-empty-string  $by
     *
     * @return list<string>
     */
    private static function split(string $by, string $text): array
    {
        return array_values(array_filter(array_map(trim(...), explode($by, $text)), static fn (string $p): bool => '' !== $p));
    }

    private function stopOnErrors(): void
    {
        if ([] !== $this->errors) {
            $errors = $this->errors;
            usort($errors, static fn (ReadError $a, ReadError $b): int => $a->row <=> $b->row);
            throw new CasesUnreadable($errors);
        }
    }
}
