<?php

declare(strict_types=1);

/*
 * The small tracker that ships, for trying out how defects go to another program: issues with states, comments and attachments, a log of
 * what came in, and switches to be slow, to be down, to refuse, and to store and lose the answer. It has nothing to do with the
 * application: one file, no framework, its own folder of data. Not for real work.
 */

require __DIR__ . '/Board.php';
require __DIR__ . '/page.php';

use LucidStep\Demo\Tracker\Board;

$folder = (string) ($_SERVER['TRACKER_DATA'] ?? getenv('TRACKER_DATA'));
$board = new Board('' === $folder ? sys_get_temp_dir() . '/lucid-step-tracker' : $folder, getenv('TRACKER_TOKEN') ?: 'practice');
$path = (string) preg_replace('#^.*?/tracker(?=/|$)#', '', (string) parse_url((string) $_SERVER['REQUEST_URI'], PHP_URL_PATH));
header('X-Content-Type-Options: nosniff');
header('Cache-Control: no-store');

if (!str_starts_with($path, '/api/')) {
    header("Content-Security-Policy: default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; frame-ancestors 'none'");
    if ('POST' === $_SERVER['REQUEST_METHOD']) {
        // Nobody but this page itself presses its buttons.
        if (!in_array($_SERVER['HTTP_SEC_FETCH_SITE'] ?? 'same-origin', ['same-origin', 'none'], true)) {
            http_response_code(403);
            exit();
        }
        $board->press($_POST);
        header('Location: ./', true, 303);
        exit();
    }
    header('Content-Type: text/html; charset=utf-8');
    echo LucidStep\Demo\Tracker\page($board->all());
    exit();
}
header('Content-Type: application/json');
[$status, $answer] = $board->call(
    (string) $_SERVER['REQUEST_METHOD'],
    substr($path, 4),
    (string) ($_SERVER['HTTP_AUTHORIZATION'] ?? ''),
    (string) ($_SERVER['HTTP_IDEMPOTENCY_KEY'] ?? ''),
    (string) file_get_contents('php://input'),
    $_FILES,
    $_GET,
);
if (null === $answer) {
    // Stored, and the answer lost on its way.
    $seconds = getenv('TRACKER_LOSES');
    sleep(false === $seconds ? 20 : (int) $seconds);
    http_response_code(504);
    exit();
}
http_response_code($status);
echo json_encode($answer, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES);
