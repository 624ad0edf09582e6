<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

use LucidStep\Core\Access\AccessPolicies;
use LucidStep\Core\Verdict\Policies;

/**
 * One thing of a project's setup before and after an act, said in a sentence. A row is its columns by name, as the database has them.
 *
 * @phpstan-type Row array<string, mixed>
 */
final readonly class SetupChange
{
    /** What one of each table is called. */
    private const NOUNS = [
        'memberships' => ['person', 'people'],
        'invitations' => ['invitation', 'invitations'],
        'milestones' => ['milestone', 'milestones'],
        'releases' => ['release', 'releases'],
        'builds' => ['build', 'builds'],
        'environments' => ['environment', 'environments'],
        'configurations' => ['configuration', 'configurations'],
        'axes' => ['axis', 'axes'],
        'axis_values' => ['value', 'values'],
        'forbidden_pairs' => ['pair that cannot meet', 'pairs that cannot meet'],
        'custom_fields' => ['field', 'fields'],
        'labels' => ['label', 'labels'],
        'tracker_connections' => ['outside tracker', 'outside trackers'],
    ];

    private const LISTS = [
        'type' => ['type of case', 'types of case'],
        'priority' => ['priority', 'priorities'],
        'milestone' => ['type of milestone', 'types of milestone'],
        'phase' => ['phase', 'phases'],
        'component' => ['component', 'components'],
        'reason_pass' => ['reason behind a pass', 'reasons behind a pass'],
        'reason_fail' => ['reason behind a fail', 'reasons behind a fail'],
        'reason_blocked' => ['reason behind a block', 'reasons behind a block'],
        'reason_not_applicable' => ['reason behind not applicable', 'reasons behind not applicable'],
    ];

    private const POLICIES = [
        'fail_sets_verdict' => 'A failing step decides the attempt',
        'pass_sets_verdict' => 'All steps passed decides the attempt',
        'opening_takes' => 'Opening an unassigned entry takes it',
        'only_assignee_records' => 'Only the assignee records',
        'cycle_closes_itself' => 'A cycle closes itself',
        'only_approved_cases' => 'Only approved cases enter cycles',
        'after_finishing' => 'After finishing',
        'skip_wrap_up_on_pass' => 'No wrap-up after a clean pass',
        'cycles_are_reviewed' => 'Cycles are reviewed before they are released',
        'retests_verify' => 'Retests that pass verify a defect',
    ];

    private const ACCESS = [
        'readers_see_evidence' => 'Readers see evidence and names',
        'testers_write_cases' => 'Testers write cases',
        'second_factor_required' => 'A second factor is needed',
    ];

    private const AFTER = ['next_open' => 'the next that can be walked', 'next_in_order' => 'the next in order', 'stay' => 'stay'];

    private const FIELDS = [
        'release_id' => 'release',
        'build_id' => 'what is deployed',
        'axis_id' => 'axis',
        'due_on' => 'date',
        'minutes_per_day' => 'minutes a day',
        'days_off' => 'days off',
        'working_days' => 'working days',
        'time_zone' => 'time zone',
        'retention_days' => 'days that evidence is kept',
        'storage_limit_mb' => 'MB of evidence at most',
        'description' => 'what it is for',
        'enabled' => 'on',
        'sends_each' => 'every defect goes there',
        'choices' => 'what to choose from',
    ];

    private const DAYS = [1 => 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

    /** Longer texts are said to have changed. */
    private const LONGEST = 40;

    /** So many names stand in one sentence. */
    private const NAMED = 8;

    /**
     * @param  string  $subject the table
     * @param  string  $key of the row
     * @param  ?Row  $old null when it was not there
     * @param  ?Row  $new null when it is not there any more
     */
    public function __construct(public string $subject, public string $key, public ?array $old, public ?array $new) {}

    /**
     * What an act changed: what was added or taken out of one kind in one sentence, the order of a list once.
     *
     * @param  list<self>  $changes
     * @param  array<string, string>  $names what ids are called
     *
     * @return list<string>
     */
    public static function tell(array $changes, array $names): array
    {
        $lines = $together = [];
        foreach ($changes as $change) {
            $verb = $change->verb();
            [$one, $many] = $change->noun();
            if ($change->isMove()) {
                $lines["order of {$many}"] = "Another order of {$many}";
            } elseif (null === $verb) {
                foreach ($change->sentences($names) as $sentence) {
                    $lines[$sentence] = $sentence;
                }
            } else {
                $together["{$verb} {$one}"][] = $change->name($change->new ?? $change->old, $names);
                $lines["{$verb} {$one}"] = self::sentence($verb, $one, $many, $together["{$verb} {$one}"]);
            }
        }

        return array_values($lines);
    }

    /**
     * Whether it was added or taken out; null when it was there before and after, or is told in its own way.
     */
    private function verb(): ?string
    {
        return match (true) {
            'projects' === $this->subject, 'invitations' === $this->subject, (null === $this->old) === (null === $this->new) => null,
            null === $this->old => 'Added',
            default => 'Took out',
        };
    }

    /**
     * @param  non-empty-list<string>  $names
     */
    private static function sentence(string $verb, string $one, string $many, array $names): string
    {
        if (1 === \count($names)) {
            return "{$verb} {$one} {$names[0]}";
        }
        $quoted = array_map(
            static fn(string $name): string => str_contains($name, ',') ? "“{$name}”" : $name,
            \array_slice($names, 0, self::NAMED),
        );
        $more = \count($names) - self::NAMED;

        return "{$verb} " . \count($names) . " {$many}: " . implode(', ', $quoted) . ($more > 0 ? " and {$more} more" : '');
    }

    /**
     * @return array{string, string} what one of it is called, and many
     */
    private function noun(): array
    {
        return 'list_items' === $this->subject
            ? self::LISTS[self::text($this->new['list'] ?? ($this->old['list'] ?? ''))] ?? ['line of a list', 'lines of a list']
            : self::NOUNS[$this->subject] ?? [$this->subject, $this->subject];
    }

    /**
     * @param  array<string, string>  $names what ids are called
     *
     * @return list<string> a sentence for each thing to say; none when nothing is
     */
    public function sentences(array $names): array
    {
        if (self::same($this->old, $this->new)) {
            return [];
        }
        if ('projects' === $this->subject) {
            return $this->ofProject($names);
        }
        if ('invitations' === $this->subject && null !== $this->new) {
            return $this->ofInvitation($this->new);
        }
        $noun = $this->noun()[0];
        $was = $this->name($this->old, $names);
        $is = $this->name($this->new, $names);
        if (null === $this->old || null === $this->new) {
            return [null === $this->old ? "Added {$noun} {$is}" : "Took out {$noun} {$was}"];
        }
        $said = $was === $is ? [] : [ucfirst($noun) . " {$was} is called {$is}"];
        $changed = $this->changed($names);

        return [...$said, ...[] === $changed ? [] : [ucfirst($noun) . " {$is}: " . implode('; ', $changed)]];
    }

    /**
     * Whether only its place among others changed.
     */
    private function isMove(): bool
    {
        return null !== $this->old &&
            null !== $this->new &&
            !self::same($this->old, $this->new) &&
            self::same([...$this->old, 'position' => 0], [...$this->new, 'position' => 0]);
    }

    /**
     * @param  array<string, string>  $names
     *
     * @return list<string>
     */
    private function ofProject(array $names): array
    {
        if (null === $this->old || null === $this->new) {
            return [null === $this->old ? 'The project was made' : 'The project was taken out'];
        }
        $said = [];
        $policies = static fn(array $row): array => Policies::fromArray(
            \is_array($row['policies'] ?? null) ? $row['policies'] : [],
        )->toArray();
        foreach (array_diff_assoc($policies($this->new), $policies($this->old)) as $name => $value) {
            $said[] =
                'Policy “' .
                (self::POLICIES[$name] ?? $name) .
                '”: ' .
                (\is_string($value) ? self::AFTER[$value] ?? $value : self::shown($value));
        }

        $access = static fn(array $row): array => AccessPolicies::fromArray(
            \is_array($row['access'] ?? null) ? $row['access'] : [],
        )->toArray();
        foreach (array_diff_assoc($access($this->new), $access($this->old)) as $name => $value) {
            $said[] = 'Access “' . (self::ACCESS[$name] ?? $name) . '”: ' . self::shown($value);
        }
        $archived = $this->new['archived_at'] ?? null;
        if (($this->old['archived_at'] ?? null) !== $archived) {
            $said[] = null === $archived ? 'The project was taken up again' : 'The project was archived';
        }

        return [...$said, ...array_map(ucfirst(...), $this->changed($names, ['policies', 'access', 'archived_at']))];
    }

    /**
     * @param  Row  $new
     *
     * @return list<string>
     */
    private function ofInvitation(array $new): array
    {
        $email = self::text($new['email'] ?? '');
        $role = self::text($new['role'] ?? '');

        return match (true) {
            // Who joined is told as a person who was added.
            null !== ($new['accepted_at'] ?? null) => [],
            null !== ($new['withdrawn_at'] ?? null) => ["Withdrew the invitation of {$email}"],
            null === $this->old => ["Invited {$email} as {$role}"],
            default => ["Invitation of {$email}: now as {$role}"],
        };
    }

    /**
     * @param  array<string, string>  $names
     * @param  list<string>  $but columns that are told elsewhere
     *
     * @return list<string> such as "date 2026-12-01 → 2026-12-05"
     */
    private function changed(array $names, array $but = ['name', 'position', 'list', 'value', 'user_id']): array
    {
        $said = [];
        foreach ($this->new ?? [] as $field => $now) {
            $before = $this->old[$field] ?? null;
            if ($now === $before || \in_array($field, $but, true)) {
                continue;
            }
            [$from, $to] = array_map(
                static fn(mixed $v): string => 'working_days' === $field
                    ? self::days($v)
                    : self::shown(\is_string($v) ? $names[$v] ?? $v : $v),
                [$before, $now],
            );
            $word = self::FIELDS[$field] ?? str_replace('_', ' ', $field);
            $isLong = mb_strlen($from) > self::LONGEST || mb_strlen($to) > self::LONGEST;
            $said[] = $isLong ? "{$word} changed" : "{$word} {$from} → {$to}";
        }

        return $said;
    }

    /**
     * @param  ?Row  $row
     * @param  array<string, string>  $names
     */
    private function name(?array $row, array $names): string
    {
        $name = self::text($row['name'] ?? ($row['address'] ?? ''));
        if ('memberships' === $this->subject) {
            return $names[$this->key] ?? 'somebody';
        }
        $axis = 'axis_values' === $this->subject ? $names[self::text($row['axis_id'] ?? '')] ?? '' : '';

        return '' === $axis ? $name : "{$name} of {$axis}";
    }

    /**
     * @param  ?Row  $one
     * @param  ?Row  $other
     */
    private static function same(?array $one, ?array $other): bool
    {
        $sorted = static function (?array $row): ?array {
            if (null !== $row) {
                ksort($row);
            }

            return $row;
        };

        return $sorted($one) === $sorted($other);
    }

    private static function days(mixed $days): string
    {
        return \is_array($days)
            ? implode(', ', array_map(static fn(mixed $d): string => self::DAYS[\is_int($d) ? $d : 0] ?? '?', $days))
            : self::shown($days);
    }

    private static function shown(mixed $value): string
    {
        return match (true) {
            null === $value, '' === $value, [] === $value => 'none',
            \is_bool($value) => $value ? 'on' : 'off',
            \is_array($value) => implode(', ', array_map(self::shown(...), $value)),
            default => self::text($value),
        };
    }

    private static function text(mixed $value): string
    {
        return \is_scalar($value) ? (string) $value : '';
    }
}
