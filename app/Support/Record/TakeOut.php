<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Record;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\User;
use LucidStep\App\Support\StoredAnswer;
use LucidStep\Core\Defects\DefectField;
use LucidStep\Core\Record\FreeText;

/**
 * Takes texts out of what people wrote of a case beside the record: questions and their answers, words of hand-overs, looks and
 * retests, defects that came of it with what was said of them, and notices and caught mails. What is hash-linked is left to
 * whoever removes from it.
 */
final class TakeOut
{
    /** Shorter texts are taken out only where they stand alone: they are words of everything. */
    private const SHORTEST_WITHIN = 4;

    /** From here on a text stands in a notice or a mail not by chance. */
    private const SHORTEST_ANYWHERE = 12;

    /** Which defects came of a case, and which of a session. */
    private const DEFECTS =
        'select l.defect_id from defect_links l join attempts a on a.id = l.attempt_id join entries e on e.id = a.entry_id ' .
        'where e.case_id = ?';
    private const SEEN = 'select defect_id from repros where session_id = ?';

    /** The columns that hold what people write, by table, and which rows are of a case. */
    private const PLACES = [
        ['case_messages', ['body', 'answer'], 'case_id = ?'],
        ['entries', ['handover_note', 'look_note', 'retest_reason'], 'case_id = ?'],
    ];

    /** Those that belong to defects. */
    private const OF_DEFECTS = [['defect_comments', ['text']], ['defect_files', ['name']], ['defect_changes', ['note']]];

    /**
     * @param  list<string>  $texts
     */
    public static function of(string $project, string $case, array $texts): void
    {
        foreach (self::whole($texts) as $text) {
            foreach (self::PLACES as [$table, $columns, $of]) {
                self::in($table, $columns, $of, [$case], $text);
            }
            self::inJsonOf('case_messages', 'proposal', 'case_id = ?', $case, $text);
        }
        self::ofDefects(self::DEFECTS, $case, $texts);
        self::told($project, $texts);
    }

    /**
     * Takes texts out of what came of a session: what leads to its faults, and the defects that were filed of them.
     *
     * @param  list<string>  $texts
     */
    public static function ofSession(string $project, string $session, array $texts): void
    {
        foreach (self::whole($texts) as $text) {
            self::inJsonOf('repros', 'steps', 'session_id = ?', $session, $text);
        }
        self::ofDefects(self::SEEN, $session, $texts);
        self::told($project, $texts);
    }

    /**
     * @param  string  $which defects, as a query with one question mark
     * @param  list<string>  $texts
     */
    private static function ofDefects(string $which, string $of, array $texts): void
    {
        foreach (self::whole($texts) as $text) {
            foreach (self::OF_DEFECTS as [$table, $columns]) {
                self::in($table, $columns, "defect_id in ({$which})", [$of], $text);
            }
            self::in('defects', self::wordsOfDefects(), "id in ({$which})", [$of], $text);
            self::inJsonOf('defects', 'custom', "id in ({$which})", $of, $text);
            self::inJsonOf('tracker_calls', 'payload', "defect_id in ({$which})", $of, $text);
        }
    }

    /**
     * @param  list<string>  $texts
     *
     * @return list<string> those that say something
     */
    private static function whole(array $texts): array
    {
        return array_values(array_filter($texts, static fn(string $t): bool => '' !== trim($t) && FreeText::REMOVED !== $t));
    }

    /**
     * Takes a text out of JSON, where it is more than a word of everything.
     */
    private static function inJsonOf(string $table, string $column, string $which, string $of, string $text): void
    {
        if (self::isWord($text)) {
            return;
        }
        $json = self::inJson($text);
        DB::update("update {$table} set {$column} = replace({$column}::text, ?, ?)::jsonb where {$which} and {$column}::text like ?", [
            $json,
            self::inJson(FreeText::REMOVED),
            $of,
            '%' . addcslashes($json, '%_\\') . '%',
        ]);
    }

    /**
     * Takes texts out of the events of a chain, and lets the chain say so: their digests stay, so that all of it stays proven.
     *
     * @param  'cycle'|'session'  $about whose chain it is
     * @param  list<string>  $texts
     * @param  \Closure(array<string, mixed>): void  $say appends an event to the chain
     */
    public static function ofChain(string $about, string $id, string $project, array $texts, User $by, string $reason, \Closure $say): void
    {
        $events = static fn(): Builder => DB::table("{$about}_events")->where("{$about}_id", $id);
        foreach ($events()->orderBy('sequence')->get() as $row) {
            $salts = EventRow::salts($row);
            $gone = array_intersect(array_intersect_key(FreeText::in(EventRow::payload($row->payload)), $salts), $texts);
            if ([] !== $gone) {
                Removals::add($project, null, "{$about}_event", "{$id}/{$row->sequence}", $reason, $by);
                $events()->where('sequence', $row->sequence)->update(EventRow::without($row, $gone));
                $say([
                    'cycle' => $id,
                    'sequence' => $row->sequence,
                    'texts' => FreeText::digestsOf($gone, $salts),
                    'reason' => $reason,
                ]);
            }
        }
    }

    /**
     * Takes texts out of what people were told: notices and caught mails.
     *
     * @param  list<string>  $texts
     */
    public static function told(string $project, array $texts): void
    {
        foreach (array_filter($texts, static fn(string $t): bool => mb_strlen(trim($t)) >= self::SHORTEST_ANYWHERE) as $text) {
            self::in('notices', ['text'], 'project_id = ?', [$project], $text);
            self::in('caught_mails', ['subject', 'text'], 'true', [], $text);
        }
    }

    /**
     * Answers kept for repeated requests: only those that hold the text are changed, and only in it.
     *
     * @param  list<string>  $users who sent requests that may have been answered with the texts
     * @param  Carbon  $since when the first of the texts was written
     * @param  list<string>  $texts
     */
    public static function storedAnswers(array $users, Carbon $since, array $texts): void
    {
        // The request was there a moment before what it wrote.
        $kept = DB::table('idempotency_keys')
            ->whereIn('user_id', $users)
            ->where('created_at', '>=', $since->copy()->subMinute())
            ->whereNotNull('body');
        foreach ($kept->lazyById(500, 'key') as $answer) {
            $body = json_decode(StoredAnswer::open($answer->body), true, 512, \JSON_THROW_ON_ERROR);
            $without = self::within($body, $texts);
            if ($without !== $body) {
                $sealed = StoredAnswer::seal(json_encode($without, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE));
                DB::table('idempotency_keys')
                    ->where('key', $answer->key)
                    ->update(['body' => $sealed]);
            }
        }
    }

    /**
     * Takes texts out of an answer, also where they stand within a longer one, as in a defect that was drafted from them.
     *
     * @param  list<string>  $texts
     */
    private static function within(mixed $value, array $texts): mixed
    {
        if (\is_array($value)) {
            return array_map(static fn(mixed $v): mixed => self::within($v, $texts), $value);
        }
        $long = array_filter($texts, static fn(string $t): bool => mb_strlen($t) >= self::SHORTEST_WITHIN);

        return match (true) {
            !\is_string($value) => $value,
            \in_array($value, $texts, true) => FreeText::REMOVED,
            default => str_replace($long, FreeText::REMOVED, $value),
        };
    }

    /**
     * @param  list<string>  $columns
     * @param  string  $of which rows, in SQL
     * @param  list<string>  $with what stands for its question marks
     */
    private static function in(string $table, array $columns, string $of, array $with, string $text): void
    {
        foreach ($columns as $column) {
            [$new, $is, $old] = self::isWord($text)
                ? ['?', '= ?', $text]
                : ["replace({$column}, ?, ?)", 'like ?', '%' . addcslashes($text, '%_\\') . '%'];
            $put = self::isWord($text) ? [FreeText::REMOVED] : [$text, FreeText::REMOVED];
            DB::update("update {$table} set {$column} = {$new} where {$of} and {$column} {$is}", [...$put, ...$with, $old]);
        }
    }

    /**
     * @return list<string> every field of a defect that somebody words
     */
    private static function wordsOfDefects(): array
    {
        return array_column(array_filter(DefectField::cases(), static fn(DefectField $f): bool => $f->isWords()), 'value');
    }

    /**
     * Whether it is too short to be taken out of longer texts.
     */
    private static function isWord(string $text): bool
    {
        return mb_strlen($text) < self::SHORTEST_WITHIN;
    }

    /**
     * The text as the database writes it within JSON.
     */
    private static function inJson(string $text): string
    {
        return substr(json_encode($text, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES), 1, -1);
    }
}
