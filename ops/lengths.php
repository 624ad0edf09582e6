<?php

declare(strict_types=1);

// Names every line and every file that is too long. Arguments: columns, lines, files.
[$columns, $lines] = [(int) $argv[1], (int) $argv[2]];
$faults = [];
foreach (array_slice($argv, 3) as $file) {
    $rows = is_file($file) ? file($file, FILE_IGNORE_NEW_LINES) : [];
    $rows = false === $rows ? [] : $rows;
    if (count($rows) > $lines) {
        $faults[] = sprintf('%s has %d lines; at most %d.', $file, count($rows), $lines);
    }
    foreach ($rows as $at => $row) {
        if (mb_strlen($row) > $columns) {
            $faults[] = sprintf('%s:%d has %d columns; at most %d.', $file, $at + 1, mb_strlen($row), $columns);
        }
    }
}
echo implode("\n", $faults), [] === $faults ? '' : "\n";
exit([] === $faults ? 0 : 1);
