<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Tracker;

/**
 * A tracker outside. Each act goes with an id of its own, by which the tracker knows it when it comes again: a tracker that heeds it
 * stores nothing twice.
 *
 * Every method throws {@see TrackerAway} when it is to be tried again, and {@see TrackerRefused} when that would change nothing.
 */
interface Tracker
{
    /**
     * Files a report.
     *
     * @param  array<string, string>  $report by `title`, `body`, `severity`, `state`
     */
    public function file(array $report, string $act): OutsideIssue;

    public function comment(string $key, string $text, string $act): void;

    /**
     * @param  resource  $content
     */
    public function attach(string $key, string $name, string $type, $content, string $act): void;

    /**
     * @param  string  $state as the tracker calls it
     */
    public function move(string $key, string $state, string $act): void;

    public function read(string $key): OutsideIssue;

    /**
     * What changed since.
     *
     * @param  string  $cursor empty: from the beginning
     *
     * @return array{list<OutsideIssue>, string} and where the next begin
     */
    public function changedSince(string $cursor): array;
}
