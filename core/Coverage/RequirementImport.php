<?php

declare(strict_types=1);

namespace LucidStep\Core\Coverage;

use LucidStep\Core\Exchange\RequirementRecord;

/**
 * What an import of requirements would do, row by row: it finds those that are there by key, else by identifier, else, where the
 * file names neither, by title.
 */
final class RequirementImport
{
    /** @var array<string, KnownRequirement> by id */
    private array $known = [];

    /** @var array<string, string> ids by key, folded */
    private array $byKey = [];

    /** @var array<string, string> ids by identifier */
    private array $byIdentifier = [];

    /** @var array<string, string> ids by title, folded; those that several share are none */
    private array $byTitle = [];

    /**
     * @param  iterable<KnownRequirement>  $known
     * @param  int  $deepest how many may stand one below the other
     */
    public function __construct(iterable $known, private readonly int $deepest)
    {
        foreach ($known as $one) {
            $this->known[$one->id] = $one;
            $this->byKey[mb_strtolower($one->key)] = $one->id;
            if (null !== $one->words->externalId) {
                $this->byIdentifier[$one->words->externalId] = $one->id;
            }
            $title = mb_strtolower(trim($one->words->title));
            $this->byTitle[$title] = isset($this->byTitle[$title]) ? '' : $one->id;
        }
    }

    /**
     * @param  list<RequirementRecord>  $records
     *
     * @return list<ImportedRequirement> in their order
     */
    public function rows(array $records): array
    {
        $named = $taken = $rows = [];
        foreach ($records as $i => $record) {
            foreach (array_filter([$record->key, (string) $record->words->externalId]) as $name) {
                $named[mb_strtolower($name)] ??= $i;
            }
        }
        $byRow = array_flip(array_map(static fn(RequirementRecord $r): int => $r->row, $records));
        $parents = [];
        foreach ($records as $i => $record) {
            $parents[$i] =
                null !== $record->parentRow ? $byRow[$record->parentRow] ?? null : $named[mb_strtolower($record->parent)] ?? null;
        }
        $ids = array_map($this->find(...), $records);
        $above = $this->aboveAll($records, $ids, $parents);
        $why = [];
        foreach ($records as $i => $record) {
            $id = $ids[$i];
            $why[$i] = $this->why($record, $id, $parents[$i]) ?? $this->loop($above, $id ?? "row {$i}");
            if (null !== $id && isset($taken[$id])) {
                $why[$i] ??= "Row {$taken[$id]} is the same requirement.";
            }
            if (null === $why[$i] && null !== $id) {
                $taken[$id] = $record->row;
            }
        }
        foreach ($records as $i => $record) {
            $at = $parents[$i];
            $parentId = null === $at ? $this->above($record->parent) : $ids[$at];
            $left = self::leftOut($records, $ids, $parents, $why, $i);
            // What is left out of the file but is here already stays above it.
            $at = null === $at || null === $why[$at] ? $at : null;
            $rows[] = $this->row($record, $ids[$i], $at, $parentId, $why[$i] ?? $left);
        }

        return $rows;
    }

    /**
     * What will stand above what once the file is in: requirements by id, rows that make a new one by their place.
     *
     * @param  list<RequirementRecord>  $records
     * @param  list<?string>  $ids of those that rows change
     * @param  array<int, ?int>  $parents places of the rows above rows
     *
     * @return array<string, ?string>
     */
    private function aboveAll(array $records, array $ids, array $parents): array
    {
        $above = array_map(static fn(KnownRequirement $k): ?string => $k->parent, $this->known);
        foreach ($records as $i => $record) {
            $at = $parents[$i];
            if (null === $ids[$i] || \in_array('parent', $record->says, true)) {
                $above[$ids[$i] ?? "row {$i}"] = null === $at ? $this->above($record->parent) : $ids[$at] ?? "row {$at}";
            }
        }

        return $above;
    }

    /**
     * Whether a row that it stands below is left out and not here either, and which.
     *
     * @param  list<RequirementRecord>  $records
     * @param  list<?string>  $ids
     * @param  array<int, ?int>  $parents
     * @param  array<int, ?string>  $why by place
     */
    private static function leftOut(array $records, array $ids, array $parents, array $why, int $at): ?string
    {
        for ($above = $parents[$at]; null !== $above && null === $ids[$above]; $above = $parents[$above]) {
            if (null !== $why[$above]) {
                return "It stands below row {$records[$above]->row}, which is left out.";
            }
        }

        return null;
    }

    private function find(RequirementRecord $record): ?string
    {
        $identifier = (string) $record->words->externalId;

        return match (true) {
            '' !== $record->key => $this->byKey[mb_strtolower($record->key)] ?? ($this->byIdentifier[$identifier] ?? null),
            '' !== $identifier => $this->byIdentifier[$identifier] ?? ($this->byKey[mb_strtolower($identifier)] ?? null),
            default => $this->byTitle[mb_strtolower(trim($record->words->title))] ?? '' ?: null,
        };
    }

    /**
     * @return ?string why it cannot be taken
     */
    private function why(RequirementRecord $record, ?string $id, ?int $parent): ?string
    {
        if ('' !== $record->key && null === $id && '' === (string) $record->words->externalId) {
            return "There is no requirement {$record->key} here. Leave its key empty to make a new one.";
        }
        if (null === $parent && '' !== $record->parent && null === $this->above($record->parent)) {
            return "It stands below {$record->parent}, which is neither in the file nor here.";
        }
        $faults = $this->words($record, $id)->faults();

        return [] === $faults ? null : implode(' ', $faults);
    }

    private function above(string $named): ?string
    {
        return $this->byKey[mb_strtolower($named)] ?? ($this->byIdentifier[$named] ?? null);
    }

    /**
     * @param  array<string, ?string>  $above what stands above what
     */
    private function loop(array $above, string $at): ?string
    {
        $seen = [$at => true];
        for ($one = $above[$at] ?? null; null !== $one; $one = $above[$one] ?? null) {
            if ($one === $at) {
                return 'It would stand below itself.';
            }
            if (isset($seen[$one])) {
                // The loop is of others, which are left out for it.
                return null;
            }
            $seen[$one] = true;
            if (\count($seen) > $this->deepest) {
                return \sprintf('At most %d requirements stand one below the other.', $this->deepest);
            }
        }

        return null;
    }

    /**
     * What it will say: what the file does not say stays.
     */
    private function words(RequirementRecord $record, ?string $id): RequirementWords
    {
        $now = null === $id ? new RequirementWords('') : $this->known[$id]->words;
        $says = static fn(string $what): bool => \in_array($what, $record->says, true);
        $identifier = $says('external_id') ? $record->words->externalId : $now->externalId;
        // A file that was written here calls those without an identifier by their keys.
        if (null !== $id && null === $now->externalId && mb_strtolower((string) $identifier) === mb_strtolower($this->known[$id]->key)) {
            $identifier = null;
        }

        return new RequirementWords(
            $says('title') ? $record->words->title : $now->title,
            $says('text') ? $record->words->text : $now->text,
            $identifier ?? $now->externalId,
            [...$now->details, ...$record->words->details],
        );
    }

    private function row(RequirementRecord $record, ?string $id, ?int $parentAt, ?string $parentId, ?string $why): ImportedRequirement
    {
        $words = $this->words($record, $id);
        $known = null === $id ? null : $this->known[$id];
        $moves = \in_array('parent', $record->says, true);
        $changes = [];
        if (null !== $known) {
            $before = ['title' => $known->words->title, 'text' => $known->words->text, 'external_id' => $known->words->externalId];
            $after = ['title' => $words->title, 'text' => $words->text, 'external_id' => $words->externalId];
            $changes = array_keys(array_diff_assoc(array_map(strval(...), $after), array_map(strval(...), $before)));
            $changes = $known->words->details === $words->details ? $changes : [...$changes, 'details'];
            $stands = null === $parentAt || null !== $parentId ? $parentId : "row {$parentAt}";
            $changes = $moves && $stands !== $known->parent ? [...$changes, 'parent'] : $changes;
        }
        $comesBack = null !== $known && $known->dropped;

        return new ImportedRequirement($record->row, $id, $words, $parentAt, $parentId, $moves, $changes, $comesBack, $why);
    }
}
