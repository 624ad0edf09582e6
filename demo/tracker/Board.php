<?php

declare(strict_types=1);

namespace LucidStep\Demo\Tracker;

/**
 * What the small tracker keeps: one file, changed under a lock.
 *
 * @phpstan-type Issue array{key: string, number: int, title: string, text: string, severity: string, state: string, assignee: string,
 *     changed: string, comments: list<array{text: string, at: string}>, attachments: list<array{name: string, bytes: int}>}
 * @phpstan-type Kept array{next: int, turn: int, mode: string, hook: string, secret: string, issues: array<string, Issue>,
 *     answers: array<string, array{int, array<string, mixed>}>, log: list<string>}
 */
final class Board
{
    public const STATES = ['open', 'question', 'doing', 'done', 'declined'];

    public const MODES = ['ok', 'slow', 'down', 'refuse', 'lose'];

    private const LOG = 60;

    private const NEW = [
        'next' => 1,
        'turn' => 0,
        'mode' => 'ok',
        'hook' => '',
        'secret' => '',
        'issues' => [],
        'answers' => [],
        'log' => [],
    ];

    public function __construct(private readonly string $folder, private readonly string $token)
    {
        is_dir($folder) || mkdir($folder, 0o700, true);
    }

    /**
     * @return Kept
     */
    public function all(): array
    {
        return $this->change(static fn(array $kept): array => [$kept, $kept]);
    }

    /**
     * A call of its API.
     *
     * @param  array<array-key, mixed>  $files as PHP has them
     * @param  array<array-key, mixed>  $query
     *
     * @return array{int, ?array<string, mixed>} status and answer; no answer: it was stored, and the answer is lost
     */
    public function call(string $method, string $path, string $authorization, string $act, string $body, array $files, array $query): array
    {
        $mode = $this->all()['mode'];
        $line = "{$method} {$path}";
        if ('slow' === $mode) {
            sleep(3);
        }
        if ('down' === $mode) {
            return $this->told($line, 503, ['error' => 'Not now.']);
        }
        if ("Bearer {$this->token}" !== $authorization) {
            return $this->told($line, 401, ['error' => 'Who are you?']);
        }
        if ('refuse' === $mode && 'GET' !== $method) {
            return $this->told($line, 422, ['error' => 'This is not taken.']);
        }
        $answer = $this->change(function (array $kept) use ($method, $path, $act, $body, $files, $query, $line): array {
            if ('' !== $act && isset($kept['answers'][$act])) {
                $kept['log'][] = "{$line} again, known";

                return [$kept, $kept['answers'][$act]];
            }
            [$kept, $answer] = $this->done($kept, $method, $path, $body, $files, $query);
            $kept['log'] = array_slice([...$kept['log'], "{$line} → {$answer[0]}"], -self::LOG);
            if ('' !== $act && $answer[0] < 300) {
                $kept['answers'][$act] = $answer;
            }

            return [$kept, $answer];
        });

        return 'lose' === $mode && 'GET' !== $method ? [504, null] : $answer;
    }

    /**
     * A button of its page.
     *
     * @param  array<array-key, mixed>  $pressed
     */
    public function press(array $pressed): void
    {
        $text = static fn(string $name): string => is_string($pressed[$name] ?? null) ? trim($pressed[$name]) : '';
        $moved = $this->change(static function (array $kept) use ($text): array {
            if (in_array($text('mode'), self::MODES, true)) {
                $kept['mode'] = $text('mode');
            }
            if ('' !== $text('hook')) {
                [$kept['hook'], $kept['secret']] = [$text('hook'), $text('secret')];
            }
            $key = $text('key');
            if (isset($kept['issues'][$key]) && in_array($text('state'), self::STATES, true)) {
                $kept['issues'][$key] = self::changed($kept, [
                    ...$kept['issues'][$key],
                    'state' => $text('state'),
                    'assignee' => $text('assignee'),
                ]);
                ++$kept['turn'];

                return [$kept, $kept['issues'][$key]];
            }

            return [$kept, null];
        });
        if (null !== $moved) {
            $this->tell($moved);
        }
    }

    /**
     * @param  Kept  $kept
     * @param  array<array-key, mixed>  $files
     * @param  array<array-key, mixed>  $query
     *
     * @return array{Kept, array{int, array<string, mixed>}}
     */
    private function done(array $kept, string $method, string $path, string $body, array $files, array $query): array
    {
        $sent = json_decode($body, true);
        $sent = is_array($sent) ? $sent : [];
        $text = static fn(string $name): string => is_string($sent[$name] ?? null) ? $sent[$name] : '';
        if ('GET' === $method && '/changes' === $path) {
            $since = (int) ($query['since'] ?? 0);
            $issues = array_filter($kept['issues'], static fn(array $i): bool => $i['number'] > $since);

            return [$kept, [200, ['issues' => array_values(array_map(self::shown(...), $issues)), 'next' => (string) $kept['turn']]]];
        }
        if ('POST' === $method && '/issues' === $path) {
            if ('' === $text('title')) {
                return [$kept, [422, ['error' => 'A title is needed.']]];
            }
            $key = 'TRK-' . $kept['next']++;
            $issue = ['key' => $key, 'number' => 0, 'title' => $text('title'), 'text' => $text('text'), 'severity' => $text('severity')];
            $kept['issues'][$key] = self::changed($kept, [
                ...$issue,
                'state' => 'open',
                'assignee' => '',
                'changed' => '',
                'comments' => [],
                'attachments' => [],
            ]);
            ++$kept['turn'];

            return [$kept, [201, self::shown($kept['issues'][$key])]];
        }
        if (1 !== preg_match('#^/issues/([A-Z]+-\d+)(/comments|/attachments)?$#', $path, $m) || !isset($kept['issues'][$m[1]])) {
            return [$kept, [404, ['error' => 'There is none.']]];
        }
        $issue = $kept['issues'][$m[1]];
        $part = $m[2] ?? '';
        if ('GET' === $method) {
            return [$kept, [200, self::shown($issue)]];
        }
        if ('/comments' === $part) {
            $issue['comments'][] = ['text' => $text('text'), 'at' => gmdate('c')];
        } elseif ('/attachments' === $part) {
            $file = is_array($files['file'] ?? null) ? $files['file'] : [];
            $issue['attachments'][] = ['name' => (string) ($file['name'] ?? 'file'), 'bytes' => (int) ($file['size'] ?? 0)];
        } elseif (in_array($text('state'), self::STATES, true)) {
            $issue = self::changed($kept, [...$issue, 'state' => $text('state')]);
            ++$kept['turn'];
        } else {
            return [$kept, [422, ['error' => 'No such state.']]];
        }
        $kept['issues'][$m[1]] = $issue;

        return [$kept, [200, self::shown($issue)]];
    }

    /**
     * @param  Kept  $kept
     * @param  Issue  $issue
     *
     * @return Issue
     */
    private static function changed(array $kept, array $issue): array
    {
        $now = \DateTimeImmutable::createFromFormat('U.u', sprintf('%.6f', microtime(true)));

        return [
            ...$issue,
            'number' => $kept['turn'] + 1,
            'changed' => (false === $now ? new \DateTimeImmutable() : $now)->format('Y-m-d\TH:i:s.u\Z'),
        ];
    }

    /**
     * @param  Issue  $issue
     *
     * @return array<string, mixed>
     */
    private static function shown(array $issue): array
    {
        return array_intersect_key($issue, array_flip(['key', 'title', 'state', 'assignee', 'changed', 'comments', 'attachments']));
    }

    /**
     * @param  array<string, mixed>  $answer
     *
     * @return array{int, array<string, mixed>}
     */
    private function told(string $line, int $status, array $answer): array
    {
        $this->change(static function (array $kept) use ($line, $status): array {
            $kept['log'] = array_slice([...$kept['log'], "{$line} → {$status}"], -self::LOG);

            return [$kept, null];
        });

        return [$status, $answer];
    }

    /**
     * Tells whoever wants to know, signed.
     *
     * @param  Issue  $issue
     */
    private function tell(array $issue): void
    {
        $kept = $this->all();
        if (1 !== preg_match('#^https?://#', $kept['hook'])) {
            return;
        }
        [$time, $body] = [(string) time(), (string) json_encode(self::shown($issue))];
        $signature = hash_hmac('sha256', "{$time}.{$body}", $kept['secret']);
        $event = "{$issue['key']}-{$issue['number']}";
        @file_get_contents(
            $kept['hook'],
            false,
            stream_context_create([
                'http' => [
                    'method' => 'POST',
                    'content' => $body,
                    'timeout' => 5,
                    'header' => implode("\r\n", [
                        'Content-Type: application/json',
                        "X-Lucid-Time: {$time}",
                        "X-Lucid-Signature: {$signature}",
                        "X-Lucid-Event: {$event}",
                    ]),
                ],
            ]),
        );
    }

    /**
     * @template T
     *
     * @param  \Closure(Kept): array{Kept, T}  $how
     *
     * @return T
     */
    private function change(\Closure $how): mixed
    {
        $file = fopen("{$this->folder}/board.json", 'c+') ?: throw new \RuntimeException('No board.');
        flock($file, LOCK_EX);
        $read = json_decode((string) stream_get_contents($file), true);
        /** @var Kept $kept */
        $kept = [...self::NEW, ...is_array($read) ? $read : []];
        [$now, $out] = $how($kept);
        if ($now !== $kept) {
            ftruncate($file, 0);
            rewind($file);
            fwrite($file, json_encode($now, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE));
        }
        fclose($file);

        return $out;
    }
}
