<?php

declare(strict_types=1);

namespace LucidStep\Demo\Tracker;

/**
 * The page of the small tracker.
 *
 * @param  array<string, mixed>  $kept as the board has it
 */
function page(array $kept): string
{
    $e = static fn(mixed $text): string => htmlspecialchars(is_scalar($text) ? (string) $text : '', ENT_QUOTES);
    $words = [
        'ok' => 'as it should be',
        'slow' => 'slow',
        'down' => 'down',
        'refuse' => 'refusing',
        'lose' => 'stores, and loses the answer',
    ];
    $modes = '';
    foreach ($words as $mode => $word) {
        $checked = $mode === $kept['mode'] ? ' checked' : '';
        $modes .= "<label><input type=\"radio\" name=\"mode\" value=\"{$mode}\"{$checked}> {$word}</label> ";
    }
    $rows = '';
    foreach (array_reverse((array) $kept['issues']) as $issue) {
        $options = '';
        foreach (Board::STATES as $state) {
            $options .= '<option' . ($state === $issue['state'] ? ' selected' : '') . ">{$state}</option>";
        }
        $talk = '';
        foreach ($issue['comments'] as $comment) {
            $talk .= '<p class="talk">' . nl2br($e($comment['text'])) . '</p>';
        }
        foreach ($issue['attachments'] as $file) {
            $talk .= '<p class="talk">File: ' . $e($file['name']) . ', ' . $e($file['bytes']) . ' bytes</p>';
        }
        $rows .=
            '<article id="' .
            $e($issue['key']) .
            '"><h2>' .
            $e($issue['key']) .
            ' ' .
            $e($issue['title']) .
            '</h2>' .
            '<form method="post"><input type="hidden" name="key" value="' .
            $e($issue['key']) .
            '">' .
            '<select name="state" aria-label="State of ' .
            $e($issue['key']) .
            '">' .
            $options .
            '</select> ' .
            '<input name="assignee" placeholder="Whose it is" aria-label="Whose ' .
            $e($issue['key']) .
            ' is" value="' .
            $e($issue['assignee']) .
            '"> <button>Change</button></form>' .
            '<details><summary>What it says</summary><pre>' .
            $e($issue['text']) .
            "</pre></details>{$talk}</article>";
    }
    $log = implode("\n", array_map($e, array_reverse((array) $kept['log'])));
    $empty = '' === $rows ? '<p>Nothing was filed yet.</p>' : $rows;

    return <<<HTML
    <!doctype html>
    <html lang="en">
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width">
    <title>Pinboard, a tracker for practice</title>
    <style>
    body { font: 15px/1.5 Georgia, serif; background: #e9efe9; color: #1c2b22; max-width: 62rem; margin: 2rem auto; padding: 0 1rem }
    h1 { font-size: 1.6rem } h2 { font-size: 1.05rem; margin: 0 0 .4rem }
    article, form.box, pre.log { background: #fff; border-left: 5px solid #4c7a5b; padding: .8rem 1rem; margin: .8rem 0 }
    pre { white-space: pre-wrap; overflow-wrap: anywhere } .talk { border-top: 1px solid #cdd9cf; padding-top: .3rem }
    select, input, button { font: inherit; padding: .2rem .4rem } label { margin-right: 1rem }
    </style>
    <h1>Pinboard</h1>
    <p>A small tracker for practice. It is not Lucid Step: defects are sent here, as they would be to the program another team uses.</p>
    <form class="box" method="post"><strong>It is</strong> {$modes}<button>Set</button></form>
    <form class="box" method="post"><strong>Tell this address of changes</strong>
    <input name="hook" size="46" value="{$e($kept['hook'])}" aria-label="Address">
    <input name="secret" size="20" placeholder="Secret" aria-label="Secret"> <button>Keep</button></form>
    {$empty}
    <h2>What came in</h2>
    <pre class="log">{$log}</pre>
    </html>
    HTML;
}
