<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Text\ItemList;

/**
 * The casebook's own JSON: everything of it with names instead of ids, so that it comes back the same elsewhere.
 */
final readonly class JsonCases
{
    public const FORMAT = 'lucid-step/casebook';

    public const VERSION = 1;

    /**
     * @param  list<array<string, mixed>>  $routines     name, description, parameters, steps
     * @param  list<array<string, mixed>>  $tables       name, columns, rows; secret cells are left out
     * @param  list<array<string, mixed>>  $fields       name, kind, choices, required
     * @param  list<array<string, mixed>>  $requirements key, title, parent
     * @param  array<string, string>  $files        content in Base64 by SHA-256
     * @param  list<array<string, mixed>>  $cases
     * @param  list<array<string, mixed>>  $types        value, name
     * @param  list<list<string>>  $folders      paths, outermost first: those without a case as well
     * @param  list<array<string, mixed>>  $suites       name, kind, filter, requirement, cases (keys)
     */
    private function __construct(
        public array $routines,
        public array $tables,
        public array $fields,
        public array $requirements,
        public array $files,
        public array $cases,
        public array $types,
        public array $folders,
        public array $suites,
    ) {}

    /**
     * @throws Unreadable when it is no such document
     */
    public static function read(string $json): self
    {
        try {
            $all = json_decode($json, true, 64, \JSON_THROW_ON_ERROR);
        } catch (\JsonException $e) {
            throw Unreadable::because('This is no JSON: ' . $e->getMessage() . '.');
        }
        if (!\is_array($all) || self::FORMAT !== ($all['format'] ?? null)) {
            throw Unreadable::because('This JSON is no casebook. Its "format" must be "' . self::FORMAT . '".');
        }
        if (self::VERSION !== ($all['version'] ?? null)) {
            throw Unreadable::because('This casebook was written by another version, which cannot be read here.');
        }

        return new self(
            self::rows($all, 'routines'),
            self::rows($all, 'tables'),
            self::rows($all, 'fields'),
            self::rows($all, 'requirements'),
            self::texts($all['files'] ?? []),
            self::rows($all, 'cases'),
            self::rows($all, 'types'),
            array_map(
                static fn(array $path): array => array_values(array_filter(array_map(strval(...), array_filter($path, is_scalar(...))))),
                array_values(array_filter((array) ($all['folders'] ?? []), is_array(...))),
            ),
            self::rows($all, 'suites'),
        );
    }

    /**
     * @return array<string, mixed>
     */
    public static function step(Step $step, ?string $routine): array
    {
        return array_filter(
            [
                'action' => $step->action,
                'data' => $step->data,
                'expected' => $step->expected,
                'routine' => $routine,
                'values' => $step->values,
                'files' => $step->files,
            ],
            static fn(mixed $v): bool => null !== $v && '' !== $v && [] !== $v,
        );
    }

    /**
     * @param  array<string, mixed>  $step
     * @param  array<string, string>  $routines ids by name in lower case
     * @param  list<ReadError>  $errors
     */
    public static function toStep(array $step, array $routines, array &$errors = [], int $row = 0): Step
    {
        if (\is_string($step['routine'] ?? null)) {
            $id = $routines[mb_strtolower($step['routine'])] ?? null;
            if (null === $id) {
                $errors[] = new ReadError($row, 'routine', "\"{$step['routine']}\" is not there.");
            }
            $step['routine'] = $id ?? '';
        }

        return Step::fromArray($step);
    }

    /**
     * The cases as other files have them too: what a case does not name is empty.
     *
     * @return \Generator<int, CaseRow>
     */
    public function cases(ImportContext $around): \Generator
    {
        $named = [
            ...array_diff(array_keys(CaseColumns::TARGETS), ['key', ...CaseColumns::STEP]),
            ...array_map(static fn($f): string => CaseColumns::CUSTOM . $f->name, array_values($around->fields)),
        ];
        foreach ($this->cases as $i => $case) {
            $row = $i + 1;
            $custom = \is_array($case['custom'] ?? null) ? $case['custom'] : [];
            $cells = [\is_string($case['key'] ?? null) ? $case['key'] : ''];
            foreach ($named as $target) {
                $value = str_starts_with($target, CaseColumns::CUSTOM)
                    ? $custom[substr($target, \strlen(CaseColumns::CUSTOM))] ?? ''
                    : $case[$target] ?? '';
                $cells[] = Cell::harmless(
                    match (true) {
                        \is_bool($value) => $value ? 'yes' : 'no',
                        \is_array($value) => 'folder' === $target
                            ? implode(
                                ' / ',
                                array_map(static fn(mixed $n): string => str_replace('/', '\/', \is_scalar($n) ? (string) $n : ''), $value),
                            )
                            : ItemList::write(array_values(array_map(strval(...), array_filter($value, is_scalar(...))))),
                        'estimate' === $target && \is_int($value) => "{$value}s",
                        default => \is_scalar($value) ? (string) $value : '',
                    },
                );
            }
            $read = null;
            foreach ((new CaseReader(['key', ...$named], CaseReader::BY_CASE, $around))->cases([$row => $cells]) as $found) {
                $read = $found;
            }
            if (null === $read) {
                continue;
            }
            $errors = $read->errors;
            $steps = [];
            foreach (self::rows($case, 'steps') as $step) {
                $steps[] = self::toStep($step, $around->routines, $errors, $row);
            }
            if (\count($steps) > CaseReader::MOST_STEPS) {
                $errors[] = new ReadError($row, 'steps', \sprintf('A case takes at most %d steps.', CaseReader::MOST_STEPS));
            }
            yield $row => new CaseRow(
                $row,
                $read->key,
                [...$read->fields, ...self::needs($case), 'files' => Step::fromArray(['files' => $case['files'] ?? []])->files],
                $steps,
                $errors,
            );
        }
    }

    /**
     * @param  array<string, mixed>  $case
     *
     * @return array{needs?: array<string, string>} the kind of condition by the key of the case that is needed; nothing where the
     *     file does not say
     */
    private static function needs(array $case): array
    {
        if (!\is_array($case['needs'] ?? null)) {
            return [];
        }
        $needs = [];
        foreach (self::rows($case, 'needs') as $need) {
            $kind = \is_string($need['kind'] ?? null) ? ConditionKind::tryFrom($need['kind']) : null;
            if (\is_string($need['case'] ?? null) && null !== $kind) {
                $needs[$need['case']] = $kind->value;
            }
        }

        return ['needs' => $needs];
    }

    /**
     * @param  array<array-key, mixed>  $all
     *
     * @return list<array<string, mixed>>
     */
    private static function rows(array $all, string $name): array
    {
        $rows = [];
        foreach (\is_array($all[$name] ?? null) ? $all[$name] : [] as $row) {
            if (\is_array($row)) {
                $rows[] = array_combine(array_map(strval(...), array_keys($row)), $row);
            }
        }

        return $rows;
    }

    /**
     * @return array<string, string>
     */
    private static function texts(mixed $all): array
    {
        $texts = [];
        foreach (\is_array($all) ? $all : [] as $name => $text) {
            if (\is_string($text)) {
                $texts[(string) $name] = $text;
            }
        }

        return $texts;
    }
}
