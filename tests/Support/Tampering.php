<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

/**
 * Ways to change a record behind the application's back, with the triggers switched off. docs/record.md has the same list.
 */
final class Tampering
{
    /**
     * @return list<array{string, string, string}> what was done, as SQL, and what the check says of it. `:a` is the finished
     *     attempt, `:o` the open one, `:e` its picture, `:s` the picture's hash, `:p` somebody else.
     */
    public static function ways(): array
    {
        $step = 'update step_results set %s where round_id in (select id from rounds where attempt_id = :a) and position = %d';
        $event = 'update events set %s where attempt_id = :a and sequence = %d';
        $attempt = 'update attempts set %s where id = :a';
        $picture = 'update evidence set %s where id = :e';

        return [
            ['the verdict of an attempt', sprintf($attempt, "verdict = 'pass', overruled = true"), 'shows verdict “pass”'],
            ['what it rolls up to', sprintf($attempt, "roll_up = 'pass'"), 'shows roll_up “pass”'],
            ['whether it was overruled', sprintf($attempt, 'overruled = not overruled'), 'shows overruled'],
            ['its tester', sprintf($attempt, 'tester_id = :p'), 'shows tester'],
            ['its build', sprintf($attempt, 'build_id = null'), 'shows build nothing'],
            ['its configuration', sprintf($attempt, 'configuration_id = :c'), 'shows configuration'],
            ['its environment', sprintf($attempt, 'environment_id = :n'), 'shows environment_id'],
            ['its surroundings', sprintf($attempt, "environment = 'A phone'"), 'shows environment “A phone”'],
            ['its note', sprintf($attempt, "note = 'All is well'"), 'shows note “All is well”'],
            ['its remark', sprintf($attempt, "remark = ''"), 'shows remark nothing'],
            ['the word of who took it over', sprintf($attempt, "takeover_word = 'Please'"), 'shows takeover_word'],
            ['why it was walked all the same', sprintf($attempt, "override_reason = 'Told to'"), 'shows override_reason'],
            ['why it stands beside another', sprintf($attempt, "parallel_reason = 'By chance'"), 'shows parallel_reason'],
            ['its time', sprintf($attempt, 'active_ms = 1'), 'shows active_ms 1'],
            ['its corrected time', sprintf($attempt, 'corrected_ms = null'), 'shows corrected_ms nothing'],
            ['its number', sprintf($attempt, 'number = 7'), 'shows number 7'],
            ['when it began', sprintf($attempt, "started_at = started_at - interval '1 day'"), 'shows started_at'],
            ['when it ended', sprintf($attempt, "finished_at = finished_at + interval '1 hour'"), 'shows ended_at'],
            [
                'the case as it was walked',
                sprintf($attempt, "snapshot = jsonb_set(snapshot, '{title}', '\"Else\"')"),
                'shows snapshot_sha256',
            ],
            ['the verdict of a step', sprintf($step, "verdict = 'pass'", 2), 'step 2 of round 1 shows verdict “pass”'],
            ['what happened', sprintf($step, "happened = ''", 2), 'step 2 of round 1 shows happened nothing'],
            ['a step\'s reason', sprintf($step, "reason = 'never'", 3), 'step 3 of round 1 shows reason'],
            ['what a step waits on', sprintf($step, "waits_on = 'nobody'", 3), 'step 3 of round 1 shows waits_on'],
            ['a step\'s note', sprintf($step, "note = 'dry'", 1), 'step 1 of round 1 shows note'],
            ['a step\'s tries', sprintf($step, 'tries_failed = 0', 2), 'step 2 of round 1 shows tries_failed 0'],
            ['a step\'s time', sprintf($step, 'active_ms = 1', 1), 'step 1 of round 1 shows active_ms 1'],
            [
                'a step is taken out',
                'delete from step_results where position = 2 and round_id in (select id from rounds where ' . 'attempt_id = :a)',
                'step 2 of round 1 is not there any more',
            ],
            ['a round is left out', "update rounds set skipped = 'no time' where attempt_id = :a", 'round 1 shows skipped'],
            [
                'a value it was walked with',
                "update rounds set data_row = '{\"Route\": \"South\"}' where attempt_id = :a",
                'shows Route “South”',
            ],
            ['how it was judged', 'update attempts set from_list = true where id = :a', 'shows from_list yes'],
            ['what a round rolls up to', "update rounds set roll_up = 'pass' where attempt_id = :a", 'round 1 shows roll_up “pass”'],
            [
                'a round is put in',
                'insert into rounds (id, attempt_id, position, repeats) values (gen_random_uuid(), :a, 2, 1)',
                'no event walks round 1 once more',
            ],
            ['a caption', sprintf($picture, "caption = 'The stern'"), 'shows caption “The stern”'],
            ['the name of a file', sprintf($picture, "name = 'b.png'"), 'shows name “b.png”'],
            ['evidence is moved', sprintf($picture, 'step = 1'), 'shows step 1'],
            ['evidence is taken off', sprintf($picture, 'removed_at = now()'), 'shows removed yes'],
            ['evidence is put back', 'update evidence set removed_at = null where attempt_id = :a', 'shows removed no'],
            ['who added evidence', sprintf($picture, 'added_by_id = :p'), 'shows added_by'],
            ['an evidence row is deleted', 'delete from evidence where id = :e', 'is not there any more'],
            [
                'an evidence row is put in',
                'insert into evidence (id, project_id, attempt_id, link, name, added_by_id, created_at) select ' .
                "gen_random_uuid(), project_id, id, 'http://127.0.0.1/', 'x', tester_id, now() from attempts where id = :a",
                'no event adds evidence',
            ],
            ['evidence is moved to another attempt', sprintf($picture, 'attempt_id = :o'), 'is not there any more'],
            [
                'evidence shows another file',
                sprintf($picture, 'sha256 = (select sha256 from evidence where attempt_id = :a and ' . 'sha256 <> :s limit 1)'),
                'shows sha256',
            ],
            [
                'what an entry shows',
                "update entries set display_state = 'pass', previous_verdict = null where id = (select entry_id " .
                'from attempts where id = :a)',
                'the entry shows display_state "pass"',
            ],
            [
                'how often an entry was walked',
                'update entries set attempts_count = 3 where id = (select entry_id from attempts where ' . 'id = :a)',
                'the entry shows attempts_count 3',
            ],
            [
                'what an event says',
                sprintf($event, "payload = jsonb_set(payload, '{to}', '\"pass\"')", 5),
                'its fields do not fit its bytes',
            ],
            ['who did it', sprintf($event, 'actor_id = :p', 5), 'its fields do not fit its bytes'],
            ['when it was done', sprintf($event, 'server_time = server_time + 1', 5), 'its fields do not fit its bytes'],
            ['when the device did it', sprintf($event, 'device_time = 1', 5), 'its fields do not fit its bytes'],
            ['what an event calls itself', sprintf($event, "kind = 'verdict_taken_back'", 5), 'its fields do not fit its bytes'],
            [
                'the file of an event',
                "update events set evidence = '[]' where attempt_id = :a and kind = 'evidence_added'",
                'its fields do not fit its bytes',
            ],
            ['the bytes of an event', sprintf($event, "bytes = replace(bytes, 'fail', 'pass')", 5), 'its bytes do not fit its hash'],
            ['the hash of an event', sprintf($event, "hash = repeat('0', 64)", 5), 'its bytes do not fit its hash'],
            [
                'a text of an event',
                sprintf($event, "payload = jsonb_set(payload, '{happened}', '\"It swam\"')", 5),
                'its text at happened is not what was recorded',
            ],
            [
                'the salt of a text',
                sprintf($event, "salts = jsonb_set(salts, '{happened}', '\"00\"')", 5),
                'its text at happened is not what was recorded',
            ],
            [
                'a text goes without a removal',
                sprintf($event, "salts = salts - 'happened'", 5),
                'its text at happened is gone, and nobody removed it',
            ],
            [
                'a removal is forged',
                'with r as (insert into removals (id, project_id, attempt_id, kind, subject, reason, at) select ' .
                "gen_random_uuid(), project_id, id, 'text', '5', 'A name', now() from attempts where id = :a) " .
                sprintf($event, "salts = salts - 'happened', payload = jsonb_set(payload, '{happened}', '\"(removed)\"')", 5),
                'its text at happened is gone, and nobody removed it',
            ],
            [
                'a removal of a file is forged',
                'insert into removals (id, project_id, attempt_id, kind, subject, reason, at) select ' .
                "gen_random_uuid(), project_id, id, 'file', :s, 'A face', now() from attempts where id = :a",
                'a file is said to be removed',
            ],
            [
                'who removed something is not told',
                'delete from removals where attempt_id = :a',
                'who removed something is not shown any more',
            ],
            ['an event is taken out', 'delete from events where attempt_id = :a and sequence = 4', 'event 4 is missing'],
            ['the tail is cut', 'delete from events where attempt_id = :a and sequence > 9', 'the tail is missing'],
            ['the seal is taken off', sprintf($attempt, 'sealed_sequence = null, sealed_head = null'), 'the seal is not there'],
            [
                'the seal is moved',
                sprintf($attempt, 'sealed_sequence = sequence, sealed_head = head'),
                'it is not the event that was sealed',
            ],
            ['an attempt is open again', sprintf($attempt, "state = 'open', verdict = null"), 'shows state “open”'],
            ['the signature is taken off', sprintf($attempt, 'seal_signature = null'), 'its seal: it is not signed'],
            [
                'the signature of something else',
                sprintf($attempt, 'seal_signature = (select log_signature from cycles limit 1)'),
                'its seal: its signature does not fit',
            ],
            [
                'a signature of nobody',
                sprintf($attempt, "seal_signature = repeat('0', 64) || ':AAAA'"),
                'with a key that is not this installation',
            ],
            [
                'the chain of the cycle is not signed',
                'update cycles set log_signature = null',
                'the chain of its cycle: its head: it is not signed',
            ],
            [
                'the chain of the cycle is cut and its head moved',
                'with gone as (delete from cycle_events where sequence = (select ' .
                'max(sequence) from cycle_events)) update cycles set log_sequence = log_sequence - 1, log_head = (select hash from ' .
                'cycle_events where sequence = log_sequence - 1)',
                'the chain of its cycle: its head: its signature does not fit',
            ],
            [
                'an event of the cycle\'s chain',
                "update cycle_events set kind = 'retest_asked' where sequence = 1",
                'the chain of its cycle: its fields do not fit its bytes',
            ],
            [
                'a reason in it',
                "update cycle_events set payload = jsonb_set(payload, '{reason}', '\"Other\"') where kind = " . "'evidence_removed'",
                'the chain of its cycle: its text at reason is not what was recorded',
            ],
            [
                'the tail of the cycle\'s chain',
                'delete from cycle_events where sequence = (select max(sequence) from cycle_events)',
                'the tail is missing',
            ],
        ];
    }
}
