<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Data\Names;
use LucidStep\Core\Forecast\Duration;
use LucidStep\Core\Forecast\NotADuration;
use LucidStep\Core\Text\ItemList;

/**
 * Reads the cells of a case that are no text: names of what the project has, lists, durations. What it meets of words that the
 * project does not have is counted, so that a person can say what they mean.
 */
final class FieldReader
{
    public const MOST_LABELS = 50;

    public const LONGEST_LABEL = 60;

    private const MOST_FOLDERS = 12;

    private const LONGEST_FOLDER = 120;

    /** Columns whose words can be said to mean others. */
    public const WORDS = ['priority', 'state', 'type', 'owner'];

    /** So many words of a column are counted. */
    private const MOST_WORDS = 60;

    /** @var array<string, array<string, int>> how often, by column and by the word as it stands in the file */
    public array $unknown = [];

    public function __construct(private readonly ImportContext $around) {}

    /**
     * @param  string  $target of {@see CaseColumns}
     *
     * @throws \DomainException when the cell cannot be that
     */
    public function read(string $target, string $value): mixed
    {
        if (str_starts_with($target, CaseColumns::CUSTOM)) {
            $field = $this->around->fields[mb_strtolower(substr($target, \strlen(CaseColumns::CUSTOM)))] ?? null;

            return $field?->take($value) ?? '';
        }

        return match ($target) {
            'title' => (string) preg_replace('/\s+/u', ' ', $value),
            'folder' => self::folder($value),
            'labels' => self::labels($value),
            'requirements' => $this->requirements($value),
            'type' => $this->type($value),
            'priority' => $this->named($target, $value, $this->around->priorities),
            'state' => $this->state($value),
            'automated', 'template' => \in_array(mb_strtolower($value), [...Synonyms::YES, 'automated', 'automatic'], true),
            'owner' => $this->named($target, $value, $this->around->people),
            'table' => $this->named($target, $value, $this->around->tables),
            'estimate' => self::estimate($value),
            default => $value,
        };
    }

    /**
     * @throws \DomainException when it is not there
     * @return string its id
     */
    public function routine(string $name): string
    {
        return (string) $this->named('routine', $name, $this->around->routines);
    }

    /**
     * @param  array<string, string>  $known by name in lower case
     *
     * @return ?string null for an empty cell
     */
    private function named(string $target, string $value, array $known): ?string
    {
        if ('' === $value) {
            return null;
        }
        $found = $known[mb_strtolower($value)] ?? $this->meant($target, $value);
        if (null === $found) {
            $nearest = Names::nearest($value, array_map(strval(...), array_keys($known)));
            throw new \DomainException(
                \sprintf('"%s" is not there.', mb_strimwidth($value, 0, 60, '…')) .
                    match (true) {
                        null !== $nearest => " Did you mean \"{$nearest}\"?",
                        'priority' === $target => ' Known are: ' . implode(', ', array_keys($known)) . '.',
                        default => '',
                    },
            );
        }

        return $found;
    }

    private function type(string $value): string
    {
        return '' === $value ? '' : $this->around->types[mb_strtolower($value)] ?? ($this->meant('type', $value) ?? mb_strtolower($value));
    }

    private function state(string $value): ?string
    {
        if ('' === $value) {
            return null;
        }
        $state = CaseState::fromWords($value)->value ?? $this->meant('state', $value);
        if (null === $state) {
            throw new \DomainException(
                \sprintf('"%s" is not one of: draft, in review, approved, retired.', mb_strimwidth($value, 0, 40, '…')),
            );
        }

        return $state;
    }

    /**
     * What a word that the project does not have was said to mean, or means in another language.
     *
     * @return ?string null: nobody said
     */
    private function meant(string $target, string $value): ?string
    {
        if (!\in_array($target, self::WORDS, true)) {
            return null;
        }
        if (\count($this->unknown[$target] ?? []) < self::MOST_WORDS || isset($this->unknown[$target][$value])) {
            $this->unknown[$target][$value] = 1 + ($this->unknown[$target][$value] ?? 0);
        }

        return $this->around->meant($target, $value);
    }

    /**
     * @throws \DomainException
     */
    private static function estimate(string $value): ?int
    {
        try {
            return '' === $value ? null : intdiv(Duration::fromText($value)->milliseconds, 1000);
        } catch (NotADuration $e) {
            throw new \DomainException($e->getMessage());
        }
    }

    /**
     * @return list<string>
     */
    private static function labels(string $value): array
    {
        $labels = ItemList::names(ItemList::read($value));
        if (\count($labels) > self::MOST_LABELS) {
            throw new \DomainException(\sprintf('%d labels; a case takes at most %d.', \count($labels), self::MOST_LABELS));
        }
        foreach ($labels as $label) {
            if (mb_strlen($label) > self::LONGEST_LABEL) {
                throw new \DomainException(
                    \sprintf('"%s" is longer than %d characters.', mb_strimwidth($label, 0, 40, '…'), self::LONGEST_LABEL),
                );
            }
        }

        return $labels;
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
                throw new \DomainException("There is no requirement {$name} here. Write its title behind it, or take it out.");
            }
        }

        return $named;
    }

    /**
     * @return list<string> outermost first
     */
    private static function folder(string $value): array
    {
        // A slash within a name stands behind a backslash.
        $path = array_values(
            array_filter(
                array_map(static fn(string $p): string => trim(str_replace('\/', '/', $p)), preg_split('#(?<!\\\\)/#', $value) ?: []),
                static fn(string $p): bool => '' !== $p,
            ),
        );
        if (\count($path) > self::MOST_FOLDERS) {
            throw new \DomainException(\sprintf('Folders stand at most %d deep.', self::MOST_FOLDERS));
        }
        foreach ($path as $name) {
            if (mb_strlen($name) > self::LONGEST_FOLDER) {
                throw new \DomainException(
                    \sprintf(
                        'The folder "%s" has a name longer than %d characters.',
                        mb_strimwidth($name, 0, 40, '…'),
                        self::LONGEST_FOLDER,
                    ),
                );
            }
        }

        return $path;
    }
}
