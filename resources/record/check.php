<?php

declare(strict_types=1);

use LucidStep\Core\Record\Event;
use LucidStep\Core\Record\FreeText;
use LucidStep\Core\Record\Protocol;
use LucidStep\Core\Record\Replay;
use LucidStep\Core\Record\Snapshot;
use LucidStep\Core\Record\StoredEvent;

/*
 * Checks a bundle by itself: run `php check.php` in the folder into which the bundle was unpacked, or
 * `php check.php path/to/folder`, and then the fingerprint of the key that it must be signed with, from a mail or report
 * that you trust. It needs PHP 8.2 or later and nothing else. It says what it found and ends with 0 when
 * everything fits, with 1 when something does not, naming the first thing in each file that does not fit.
 *
 * hash_0 is SHA-256("lucid-step/2" LF id), hash_n is SHA-256(hex of hash_n-1 LF hex of SHA-256(bytes of event n)). What people
 * wrote stands in the bytes as SHA-256(salt LF text); salt and text lie beside them, unless the text was taken out. The protocol
 * is made again from the events, by the rules of the application that stand above this program, and compared.
 */

$dir = rtrim($argv[1] ?? __DIR__, '/');
$faults = [];
$notes = [];
$read = static function (string $name) use ($dir, &$faults): ?string {
    $text = is_file("{$dir}/{$name}") ? file_get_contents("{$dir}/{$name}") : false;
    if ($text === false) {
        $faults[] = "{$name} is not there";

        return null;
    }

    return $text;
};

$manifestText = $read('manifest.json');
$seal = $read('seal.txt');
if ($manifestText !== null && $seal !== null && $seal !== hash('sha256', $manifestText) . "\n") {
    $faults[] = 'manifest.json or seal.txt was changed: the seal is not the SHA-256 of the manifest';
}
$manifest = json_decode((string) $manifestText, true);
$isSession = isset($manifest['session']);
if (!is_array($manifest) || !isset($manifest['files']) || (!$isSession && !isset($manifest['attempt'], $manifest['cycle']))) {
    $faults[] = 'manifest.json cannot be read';
    $isSession = false;
    $manifest = [
        'files' => [],
        'removed' => [],
        'attempt' => ['id' => '', 'head' => '', 'events' => 0, 'sealed' => null],
        'cycle' => ['id' => '', 'head' => '', 'events' => 0],
    ];
}

$signature = $read('signature.txt');
$signer = '';
if ($manifestText !== null && $signature !== null) {
    $said = preg_match('/^fingerprint ([0-9a-f]{64})\nkey ([A-Za-z0-9+\/=]+)\nsignature ([A-Za-z0-9+\/=]+)\n$/D', $signature, $m) === 1;
    $key = (string) base64_decode($m[2] ?? '', true);
    $bytes = (string) base64_decode($m[3] ?? '', true);
    $signer = $m[1] ?? '';
    $faults = [
        ...$faults,
        ...match (true) {
            !function_exists('sodium_crypto_sign_verify_detached') => [
                'signature.txt cannot be checked: this PHP was built without its part "sodium"',
            ],
            !$said || strlen($key) !== 32 || strlen($bytes) !== 64 || base64_encode($key) !== $m[2] || base64_encode($bytes) !== $m[3] => [
                'signature.txt cannot be read',
            ],
            hash('sha256', $key) !== $signer => ['signature.txt was changed: the key is not the one of that fingerprint'],
            !sodium_crypto_sign_verify_detached($bytes, "lucid-step/2 bundle\n" . hash('sha256', $manifestText), $key) => [
                'signature.txt does not fit manifest.json: one of them was changed',
            ],
            isset($argv[2]) && $argv[2] !== $signer => ["signature.txt: it is signed with another key than {$argv[2]}"],
            default => [],
        },
    ];
}

$known = ['manifest.json' => true, 'seal.txt' => true, 'signature.txt' => true];
foreach ($manifest['files'] as $file) {
    $known[$file['path']] = true;
    $text = $read($file['path']);
    if ($text !== null && hash('sha256', $text) !== $file['sha256']) {
        $faults[] = "{$file['path']} was changed: it is not the file that was put in";
    }
}
$walk = new RecursiveIteratorIterator(new RecursiveDirectoryIterator($dir, FilesystemIterator::SKIP_DOTS));
foreach ($walk as $path) {
    $name = substr((string) $path, strlen($dir) + 1);
    if ($path->isFile() && !isset($known[$name])) {
        $faults[] = "{$name} does not belong to the bundle";
    }
}

$missing = [];

/**
 * @return array{string, int, list<array<string, mixed>>, list<Event>} the head, how many, and the events themselves
 */
$chain = static function (string $name, string $id) use ($read, &$faults, &$missing): array {
    $hash = hash('sha256', "lucid-step/2\n{$id}");
    $events = $stored = [];
    $n = 0;
    foreach (array_filter(explode("\n", (string) $read($name)), static fn(string $l): bool => $l !== '') as $line) {
        $n++;
        $row = json_decode($line, true);
        if (!is_array($row) || !isset($row['sequence'], $row['hash'], $row['bytes'])) {
            $faults[] = "{$name}, line {$n} cannot be read";

            return [$hash, $n, $events, $stored];
        }
        if ($row['sequence'] !== $n) {
            $faults[] = "{$name}: event {$n} is missing";

            return [$hash, $n, $events, $stored];
        }
        $hash = hash('sha256', "{$hash}\n" . hash('sha256', $row['bytes']));
        if ($hash !== $row['hash']) {
            $faults[] = "{$name}: event {$n} was changed, its bytes do not fit its hash";

            return [$row['hash'], $n, $events, $stored];
        }
        $event = json_decode($row['bytes'], true);
        $about = $event['attempt'] ?? ($event['cycle'] ?? ($event['session'] ?? ''));
        if (!is_array($event) || ($event['sequence'] ?? 0) !== $n || $about !== $id) {
            $faults[] = "{$name}: event {$n} belongs elsewhere";
        }
        foreach (FreeText::digests((array) ($event['payload'] ?? [])) as $at => $digest) {
            $text = $row['texts'][$at] ?? null;
            if ($text === null) {
                $missing[$name][$n][] = $digest;
            } elseif (hash('sha256', "{$text['salt']}\n{$text['text']}") !== $digest) {
                $faults[] = "{$name}: the text of event {$n} at {$at} is not what was recorded";
            }
        }
        $events[] = (array) $event;
        $stored[] = StoredEvent::read($row['bytes'], $row['hash'], (array) ($row['texts'] ?? []))->event;
    }

    return [$hash, $n, $events, $stored];
};

$of = $manifest[$isSession ? 'session' : 'attempt'];
[$head, $count, $events, $said] = $chain('events.jsonl', $of['id']);
if ($head !== $of['head'] || $count !== $of['events']) {
    $faults[] = 'events.jsonl does not end as the manifest says: an event was added or taken away';
}
// A session has one chain, which says itself what was taken out of it.
[$cycleHead, $cycleCount, $cycleEvents, $ofCycle] = $isSession
    ? [$head, $count, $events, $said]
    : $chain('cycle-events.jsonl', $manifest['cycle']['id']);
if (!$isSession && ($cycleHead !== $manifest['cycle']['head'] || $cycleCount !== $manifest['cycle']['events'])) {
    $faults[] = 'cycle-events.jsonl does not end as the manifest says: an event was added or taken away';
}

$gone = array_column($manifest['removed'], 'reason', 'subject');
// What the chain of the cycle says was taken out, of this attempt and of the chain itself.
$removed = ['events.jsonl' => [], 'cycle-events.jsonl' => []];
$why = [];
foreach ($ofCycle as $event) {
    $payload = $event->payload;
    $name = match (true) {
        $event->kind !== 'text_removed' => null,
        ($payload['attempt'] ?? null) === $of['id'] || ($isSession && ($payload['cycle'] ?? null) === $of['id']) => 'events.jsonl',
        !$isSession && ($payload['cycle'] ?? null) === $manifest['cycle']['id'] => 'cycle-events.jsonl',
        default => null,
    };
    if ($name !== null) {
        $removed[$name] += array_fill_keys($payload['texts'], true);
        $why[$name][$payload['sequence']] = $payload['reason'];
    }
}
foreach ($missing as $name => $gaps) {
    foreach ($gaps as $n => $texts) {
        foreach ($texts as $digest) {
            if (!isset($removed[$name][$digest])) {
                $faults[] = "{$name}: a text of event {$n} is gone, and nobody removed it";
            }
        }
        $notes[] = "{$name}: the text of event {$n} was taken out (" . ($why[$name][$n] ?? 'no reason is given') . ')';
    }
}
$snapshot = null;
$taken = [];
foreach ($events as $event) {
    $snapshot = $event['payload']['snapshot_sha256'] ?? $snapshot;
    foreach ($event['evidence'] ?? [] as $sha256) {
        $taken[$sha256] = $event['sequence'];
    }
}
$text = $isSession ? null : $read('case.json');
if ($text !== null && $snapshot !== null && hash('sha256', $text) !== $snapshot) {
    $faults[] = 'case.json is not the case as it was walked';
}
$case = json_decode((string) $text, true);
$names = $isSession ? null : json_decode((string) $read('names.json'), true);
$protocol = $isSession ? null : $read('protocol.md');
if (is_array($case) && is_array($names) && $protocol !== null && $faults === []) {
    $files = Protocol::gone($ofCycle, $manifest['attempt']['id']);
    if ($protocol !== Protocol::write($case, $said, $manifest['cycle']['id'], array_map(strval(...), $names), $files)) {
        $faults[] = 'protocol.md does not say what the events say';
    }
    $shown = Replay::rows($said, Snapshot::rounds($case), count(Snapshot::steps($case)))->attempt;
    if (($shown['verdict'] ?? null) !== $manifest['attempt']['verdict'] || $shown['number'] !== $manifest['attempt']['number']) {
        $faults[] = 'manifest.json does not say of the attempt what the events say';
    }
    foreach (['key', 'version', 'title'] as $field) {
        if (($case[$field] ?? null) !== $manifest['case'][$field]) {
            $faults[] = "manifest.json does not say the {$field} of the case as it was walked";
        }
    }
}
$there = [];
foreach ($manifest['files'] as $file) {
    if (str_starts_with($file['path'], 'evidence/')) {
        $there[$file['sha256']] = true;
    }
}
foreach ($taken as $sha256 => $sequence) {
    if (isset($gone[$sha256])) {
        $notes[] = "a file of event {$sequence} was taken out ({$gone[$sha256]})";
    } elseif (!isset($there[$sha256])) {
        $faults[] = "the file of event {$sequence} is missing: {$sha256}";
    }
}
if ($of['sealed'] === null) {
    $notes[] = $isSession ? 'the session is not signed off, and not sealed' : 'the attempt is open, not sealed';
} elseif ($isSession) {
    if (!str_contains((string) $read('events.jsonl'), "\"hash\":\"{$of['sealed']}\"")) {
        $faults[] = 'events.jsonl does not hold the event that was sealed';
    }
} else {
    $sealed = false;
    foreach ($cycleEvents as $event) {
        $sealed = $sealed || ($event['payload']['head'] ?? '') === $manifest['attempt']['sealed'];
    }
    if (!$sealed) {
        $notes[] = 'the cycle\'s chain does not name the seal (an attempt finished before the chain began)';
    }
}

foreach ($notes as $note) {
    echo "Note: {$note}.\n";
}
foreach ($faults as $fault) {
    echo "FAULT: {$fault}.\n";
}
echo $faults === []
    ? "Whole: {$count} events, " .
        count($there) .
        " files of evidence.\n" .
        ($isSession ? "Head of the session: {$head}\n" : "Head of the attempt: {$head}\nHead of the cycle:   {$cycleHead}\n") .
        ("Signed with the key: {$signer}\nCompare these with a report or mail that you trust.\n")
    : count($faults) . " faults.\n";
exit($faults === [] ? 0 : 1);
