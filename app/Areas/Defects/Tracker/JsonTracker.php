<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Tracker;

use LucidStep\Core\Defects\Tracker\TrackerMapping;

/**
 * A tracker that speaks HTTP and JSON, at the addresses and in the fields of a mapping. The tracker that ships is one, with the mapping
 * that nobody has to change.
 */
final readonly class JsonTracker implements Tracker
{
    public function __construct(
        private OutsideHttp $http,
        private string $address,
        private string $token,
        private TrackerMapping $mapping,
    ) {}

    public function file(array $report, string $act): OutsideIssue
    {
        $answer = $this->call('file', [], $this->fields($report), $act);
        $issue = $this->issue($answer->json());

        return '' === $issue->key
            ? throw new TrackerRefused(
                $answer->status,
                'Its answer names no key. An admin looks at where it stands, in Setup; then send this again.',
            )
            : $issue;
    }

    public function comment(string $key, string $text, string $act): void
    {
        $this->call('comment', ['key' => $key], $this->fields(['comment' => $text]), $act);
    }

    public function attach(string $key, string $name, string $type, $content, string $act): void
    {
        [$method, $path] = $this->mapping->request('attach', ['key' => $key]);
        $part = [
            'name' => $this->mapping->fields['file'],
            'contents' => $content,
            'filename' => $name,
            'headers' => ['Content-Type' => $type],
        ];
        $this->http->send($method, $this->address . $path, $this->headers($act), ['multipart' => [$part]]);
    }

    public function move(string $key, string $state, string $act): void
    {
        $this->call('move', ['key' => $key], $this->fields(['state' => $state]), $act);
    }

    public function read(string $key): OutsideIssue
    {
        return $this->issue($this->call('read', ['key' => $key])->json());
    }

    public function changedSince(string $cursor): array
    {
        $answer = $this->call('changes', ['cursor' => $cursor])->json();
        $issues = array_map(
            fn(mixed $one): OutsideIssue => $this->issue((array) $one),
            array_filter((array) $this->mapping->read('list', $answer), is_array(...)),
        );
        $next = $this->mapping->read('cursor', $answer);

        return [array_values(array_filter($issues, static fn(OutsideIssue $i): bool => '' !== $i->key)), \is_string($next) ? $next : ''];
    }

    /**
     * What goes with every call.
     *
     * @return array<string, string>
     */
    private function headers(?string $act): array
    {
        $headers = array_map(fn(string $value): string => str_replace('{token}', $this->token, $value), $this->mapping->headers);

        return null === $act ? $headers : ['Idempotency-Key' => $act, ...$headers];
    }

    /**
     * @param  array<string, string>  $values
     * @param  ?array<string, string>  $fields
     */
    private function call(string $what, array $values, ?array $fields = null, ?string $act = null): OutsideAnswer
    {
        \assert(isset(TrackerMapping::PATHS[$what]));
        [$method, $path] = $this->mapping->request($what, $values);

        return $this->http->send($method, $this->address . $path, $this->headers($act), null === $fields ? [] : ['json' => $fields]);
    }

    /**
     * @param  array<string, string>  $said
     *
     * @return array<string, string> by the tracker's names
     */
    private function fields(array $said): array
    {
        $fields = [];
        foreach ($said as $name => $value) {
            $fields[$this->mapping->fields[$name] ?? $name] = $value;
        }

        return $fields;
    }

    /**
     * @param  array<array-key, mixed>  $answer
     */
    private function issue(array $answer): OutsideIssue
    {
        $text = function (string $what) use ($answer): string {
            \assert(isset(TrackerMapping::ANSWERS[$what]));
            $value = $this->mapping->read($what, $answer);

            return \is_string($value) ? mb_strimwidth($value, 0, 100) : '';
        };
        $url = $this->mapping->read('url', $answer);
        $isAddress = \is_string($url) && 1 === preg_match('#^https?://#i', $url) && \strlen($url) <= 500;

        return new OutsideIssue(
            $text('key'),
            $text('state'),
            $text('assignee'),
            $isAddress ? $url : '',
            mb_strimwidth($text('changed'), 0, 40),
        );
    }
}
