<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

use LucidStep\Core\Data\FilledPart;
use LucidStep\Core\Data\Template;
use LucidStep\Core\Text\Markdown;

/**
 * An attempt written down for people to read, as Markdown, from its events and the case as it was walked alone: whoever has
 * these can make it again and compare.
 */
final readonly class Protocol
{
    /**
     * @param  array<string, mixed>  $snapshot the case as it was walked
     * @param  list<Event>  $events in order of sequence
     * @param  array<string, string>  $names of the cycle, people, builds, configurations, environments and defects, by id
     * @param  list<string>  $gone  SHA-256 of files that were removed
     */
    private function __construct(
        private array $snapshot,
        private array $events,
        private array $names,
        private array $gone,
        private AttemptRows $rows,
    ) {}

    /**
     * @param  array<string, mixed>  $snapshot
     * @param  list<Event>  $events in order of sequence
     * @param  array<string, string>  $names by id; what has none is called by its id
     * @param  list<string>  $gone SHA-256 of files that were removed
     */
    public static function write(array $snapshot, array $events, string $cycle, array $names, array $gone = []): string
    {
        $rows = Replay::rows($events, Snapshot::rounds($snapshot), \count(Snapshot::steps($snapshot)));
        $protocol = new self($snapshot, $events, $names, $gone, $rows);
        $lines = [...$protocol->head($cycle), ...$protocol->rounds(), ...$protocol->rest()];

        return implode("\n", $lines) . "\n";
    }

    /**
     * The files of an attempt that were removed, as the chain of its cycle says.
     *
     * @param  list<Event>  $cycle the events of that chain
     *
     * @return list<string> SHA-256 of each
     */
    public static function gone(array $cycle, string $attempt): array
    {
        $gone = [];
        foreach ($cycle as $event) {
            if ('evidence_removed' === $event->kind && $attempt === ($event->payload['attempt'] ?? null)) {
                $gone[] = self::word($event->payload['sha256'] ?? '');
            }
        }

        return $gone;
    }

    /**
     * @return list<string>
     */
    private function head(string $cycle): array
    {
        $a = $this->rows->attempt;
        $ended = $a['ended_at'] ?? null;
        $verdict = self::verdict($a['verdict'] ?? ($a['roll_up'] ?? null));
        $time = \sprintf('%d s', intdiv(self::whole($a['corrected_ms'] ?? ($a['active_ms'] ?? 0)), 1000));
        $lines = [
            \sprintf('# %s %s', $this->said('key'), self::plain($this->said('title'))),
            '',
            \sprintf(
                '- Attempt %d in %s, version %d of the case',
                self::whole($a['number'] ?? 0),
                $this->name($cycle),
                self::whole($this->snapshot['version'] ?? 0),
            ),
            \sprintf(
                '- By %s, %s to %s (UTC)',
                $this->name($a['tester'] ?? null),
                self::time($a['started_at'] ?? null),
                null === $ended ? 'now' : self::time($ended),
            ),
            '- Verdict: ' .
            $verdict .
            (true === ($a['overruled'] ?? false) ? ' (overruled; the steps say ' . self::verdict($a['roll_up'] ?? null) . ')' : '') .
            ('finished' === ($a['state'] ?? '') ? '' : ', ' . self::word($a['state'] ?? '')),
            "- Time: {$time}" .
            (null === ($a['corrected_ms'] ?? null)
                ? ''
                : \sprintf(', corrected from %d s', intdiv(self::whole($a['active_ms'] ?? 0), 1000))),
        ];
        $on = array_filter([
            null === ($a['configuration'] ?? null) ? '' : $this->name($a['configuration']),
            null === ($a['build'] ?? null) ? '' : 'build ' . $this->name($a['build']),
            null === ($a['environment_id'] ?? null) ? '' : $this->name($a['environment_id']),
            self::plain(self::word($a['environment'] ?? '')),
        ]);
        foreach (
            [
                'On' => implode(', ', $on),
                'Note' => self::word($a['note'] ?? ''),
                'Note on the attempt' => self::word($a['remark'] ?? ''),
                'Judged from the list' => true === ($a['from_list'] ?? false) ? 'nobody walked its steps' : '',
                'Walked all the same' => self::word($a['override_reason'] ?? ''),
                'Stands beside' => self::word($a['parallel_reason'] ?? ''),
                'Before it began' => $this->said('preconditions'),
            ]
            as $label => $text
        ) {
            array_push($lines, ...self::line($label, $text));
        }

        return $lines;
    }

    /**
     * @return list<string>
     */
    private function rounds(): array
    {
        $lines = [];
        foreach ($this->rows->rounds as $at => $round) {
            array_push(
                $lines,
                '',
                "## Round {$at}: " .
                    (null === $round['skipped'] ? self::verdict($round['roll_up']) : 'left out (' . self::plain($round['skipped']) . ')') .
                    (null === $round['repeats'] ? '' : ", once more what round {$round['repeats']} walked"),
            );
            $row = $round['values'] ?? [];
            foreach ($row as [$name, $value]) {
                array_push($lines, ...self::line($name, $value));
            }
            foreach (Snapshot::steps($this->snapshot) as $i => $step) {
                array_push($lines, '', ...$this->step($at, $i + 1, self::filled($step, $row), $round['steps'][$i + 1] ?? []));
            }
        }

        return $lines;
    }

    /**
     * @param  array{action: string, data: string, expected: string}  $text
     * @param  array<string, scalar|null>  $result
     *
     * @return list<string>
     */
    private function step(int $round, int $at, array $text, array $result): array
    {
        $tries = self::whole($result['tries'] ?? 0);
        $lines = ["{$at}. **" . self::verdict($result['verdict'] ?? null) . '** ' . self::indented($text['action'], 3)];
        foreach (
            [
                'Data' => $text['data'],
                'Expected' => $text['expected'],
                'Happened' => self::word($result['happened'] ?? ''),
                'Reason' => self::word($result['reason'] ?? ''),
                'Waits on' => self::word($result['waits_on'] ?? ''),
                'Note' => self::word($result['note'] ?? ''),
                'Tries' => 0 === $tries ? '' : \sprintf('failed %d of %d', self::whole($result['tries_failed'] ?? 0), $tries),
            ]
            as $label => $said
        ) {
            array_push($lines, ...self::line($label, $said, 3));
        }

        return [...$lines, ...array_map(static fn(string $f): string => "   {$f}", $this->files($round, $at))];
    }

    /**
     * @return list<string>
     */
    private function rest(): array
    {
        $files = $this->files(null, null);
        $lines = [] === $files ? [] : ['', '## Evidence of the attempt', '', ...$files];
        $defects = [];
        foreach ($this->events as $event) {
            if ('defect_linked' === $event->kind) {
                $key = self::word($event->payload['key'] ?? '');
                $defects[$key] = $this->names[self::word($event->payload['defect'] ?? '')] ?? '';
            }
        }
        foreach ($defects as $key => $title) {
            array_push($lines, ...self::line("Defect {$key}", $title, 0, true));
        }

        return $lines;
    }

    /**
     * @return list<string> a line for each piece of evidence of a step, or of the whole attempt
     */
    private function files(?int $round, ?int $step): array
    {
        $lines = [];
        foreach ($this->rows->evidence as $e) {
            if (true === $e['removed'] || $e['step'] !== $step || (null !== $step && $e['round'] !== $round)) {
                continue;
            }
            $caption = self::word($e['caption'] ?? '');
            $name = self::plain(self::word($e['name'] ?? ''));
            $lines[] =
                '- Evidence: ' .
                ('' === $caption ? $name : self::plain($caption) . " ({$name})") .
                (null === $e['link'] ? '' : ', ' . self::plain(self::word($e['link']))) .
                (null === $e['sha256'] ? '' : ', SHA-256 ' . self::word($e['sha256'])) .
                (\in_array($e['sha256'], $this->gone, true) ? ', taken out' : '');
        }

        return $lines;
    }

    private function said(string $field): string
    {
        return self::word($this->snapshot[$field] ?? '');
    }

    private function name(mixed $id): string
    {
        $id = self::word($id);

        return self::plain($this->names[$id] ?? $id);
    }

    /**
     * A step with the values of a round filled in; in what is Markdown a value stands as code, so that nothing in it is read.
     *
     * @param  array{action: string, data: string, expected: string}  $step
     * @param  list<array{string, string}>  $row
     *
     * @return array{action: string, data: string, expected: string}
     */
    private static function filled(array $step, array $row): array
    {
        $values = [];
        foreach ($row as [$name, $value]) {
            $values[mb_strtolower($name)] = $value;
        }
        $fill = static fn(string $text, bool $markdown): string => [] === $values
            ? $text
            : implode(
                '',
                array_map(
                    static fn(FilledPart $p): string => $markdown ? $p->markdown() : $p->shown(),
                    Template::parse($text)->fill($values),
                ),
            );

        return [
            'action' => $fill($step['action'], true),
            'data' => $fill($step['data'], false),
            'expected' => $fill($step['expected'], true),
        ];
    }

    /**
     * @param  bool  $always whether it stands there without a text too
     *
     * @return list<string>
     */
    private static function line(string $label, string $text, int $indent = 0, bool $always = false): array
    {
        $label = str_repeat(' ', $indent) . '- ' . self::plain($label);

        return match (true) {
            '' !== $text => ["{$label}: " . self::indented($text, $indent + 2)],
            $always => [$label],
            default => [],
        };
    }

    private static function indented(string $text, int $by): string
    {
        return str_replace("\n", "\n" . str_repeat(' ', $by), Markdown::withoutHtml(str_replace("\r\n", "\n", $text)));
    }

    /**
     * A text on one line.
     */
    private static function plain(string $text): string
    {
        return Markdown::withoutHtml((string) preg_replace('/\s+/u', ' ', $text));
    }

    private static function verdict(mixed $verdict): string
    {
        return str_replace('_', ' ', self::word($verdict) ?: 'not_run');
    }

    private static function time(mixed $second): string
    {
        return gmdate('Y-m-d H:i:s', self::whole($second));
    }

    private static function whole(mixed $value): int
    {
        return \is_int($value) ? $value : 0;
    }

    private static function word(mixed $value): string
    {
        return \is_string($value) ? $value : '';
    }
}
