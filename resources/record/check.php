<?php

declare(strict_types=1);

/*
 * Checks a bundle by itself: run `php check.php` in the folder into which the bundle was unpacked, or
 * `php check.php path/to/folder`. It needs PHP 8.1 or later and nothing else. It says what it found and ends with 0 when
 * everything fits, with 1 when something does not, naming the first thing in each file that does not fit.
 *
 * hash_0 is SHA-256("lucid-step/1" LF id), hash_n is SHA-256(hex of hash_n-1 LF bytes of event n).
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
if (!is_array($manifest) || !isset($manifest['files'], $manifest['attempt'], $manifest['cycle'])) {
    $faults[] = 'manifest.json cannot be read';
    $manifest = [
        'files' => [],
        'removed' => [],
        'attempt' => ['id' => '', 'head' => '', 'events' => 0, 'sealed' => null],
        'cycle' => ['id' => '', 'head' => '', 'events' => 0],
    ];
}

$known = ['manifest.json' => true, 'seal.txt' => true];
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

/**
 * @return array{string, int, list<array<string, mixed>>} the head, how many, and the events themselves
 */
$chain = static function (string $name, string $id) use ($read, &$faults, &$notes): array {
    $hash = hash('sha256', "lucid-step/1\n{$id}");
    $events = [];
    $n = 0;
    foreach (array_filter(explode("\n", (string) $read($name)), static fn(string $l): bool => $l !== '') as $line) {
        $n++;
        $row = json_decode($line, true);
        if (!is_array($row) || !isset($row['sequence'], $row['hash'], $row['bytes'])) {
            $faults[] = "{$name}, line {$n} cannot be read";

            return [$hash, $n, $events];
        }
        if ($row['sequence'] !== $n) {
            $faults[] = "{$name}: event {$n} is missing";

            return [$hash, $n, $events];
        }
        if ($row['bytes'] === '' && ($row['removed'] ?? '') !== '') {
            $notes[] = "{$name}: the text of event {$n} was taken out ({$row['removed']})";
            $hash = $row['hash'];

            continue;
        }
        $hash = hash('sha256', "{$hash}\n{$row['bytes']}");
        if ($hash !== $row['hash']) {
            $faults[] = "{$name}: event {$n} was changed, its bytes do not fit its hash";

            return [$row['hash'], $n, $events];
        }
        $event = json_decode($row['bytes'], true);
        if (!is_array($event) || ($event['sequence'] ?? 0) !== $n || ($event['attempt'] ?? ($event['cycle'] ?? '')) !== $id) {
            $faults[] = "{$name}: event {$n} belongs elsewhere";
        }
        $events[] = (array) $event;
    }

    return [$hash, $n, $events];
};

[$head, $count, $events] = $chain('events.jsonl', $manifest['attempt']['id']);
if ($head !== $manifest['attempt']['head'] || $count !== $manifest['attempt']['events']) {
    $faults[] = 'events.jsonl does not end as the manifest says: an event was added or taken away';
}
[$cycleHead, $cycleCount, $cycleEvents] = $chain('cycle-events.jsonl', $manifest['cycle']['id']);
if ($cycleHead !== $manifest['cycle']['head'] || $cycleCount !== $manifest['cycle']['events']) {
    $faults[] = 'cycle-events.jsonl does not end as the manifest says: an event was added or taken away';
}

$snapshot = null;
$taken = [];
foreach ($events as $event) {
    $snapshot = $event['payload']['snapshot_sha256'] ?? $snapshot;
    foreach ($event['evidence'] ?? [] as $sha256) {
        $taken[$sha256] = $event['sequence'];
    }
}
$text = $read('case.json');
if ($text !== null && $snapshot !== null && hash('sha256', $text) !== $snapshot) {
    $faults[] = 'case.json is not the case as it was walked';
}
$there = [];
foreach ($manifest['files'] as $file) {
    if (str_starts_with($file['path'], 'evidence/')) {
        $there[$file['sha256']] = true;
    }
}
$gone = array_column($manifest['removed'], 'reason', 'subject');
foreach ($taken as $sha256 => $sequence) {
    if (isset($gone[$sha256])) {
        $notes[] = "a file of event {$sequence} was taken out ({$gone[$sha256]})";
    } elseif (!isset($there[$sha256])) {
        $faults[] = "the file of event {$sequence} is missing: {$sha256}";
    }
}
if ($manifest['attempt']['sealed'] === null) {
    $notes[] = 'the attempt is open, not sealed';
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
        (" files of evidence.\nHead of the attempt: {$head}\nHead of the cycle:   {$cycleHead}\nCompare these " .
            "with the heads in a report or mail that you trust.\n")
    : count($faults) . " faults.\n";
exit($faults === [] ? 0 : 1);
