<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects\Tracker;

use LucidStep\Core\Defects\DefectState;

/**
 * How a tracker that speaks HTTP and JSON is spoken to: at which addresses, in which fields, and what its states are called. A path of an
 * answer goes by names between dots, such as `data.key`.
 */
final readonly class TrackerMapping
{
    /** What can be said, and at which address a tracker takes it when nobody says otherwise; `{key}` is its name of the defect. */
    public const PATHS = [
        'file' => 'POST /issues',
        'comment' => 'POST /issues/{key}/comments',
        'attach' => 'POST /issues/{key}/attachments',
        'move' => 'PATCH /issues/{key}',
        'read' => 'GET /issues/{key}',
        'changes' => 'GET /changes?since={cursor}',
    ];

    /** What goes out, and in which field. */
    public const FIELDS = [
        'title' => 'title',
        'body' => 'text',
        'severity' => 'severity',
        'state' => 'state',
        'comment' => 'text',
        'file' => 'file',
    ];

    /** What comes in, and where it stands in the answer. */
    public const ANSWERS = [
        'key' => 'key',
        'url' => 'url',
        'state' => 'state',
        'assignee' => 'assignee',
        'changed' => 'changed',
        'list' => 'issues',
        'cursor' => 'next',
    ];

    public const STATES = [
        'new' => 'open',
        'needs_information' => 'question',
        'accepted' => 'open',
        'in_work' => 'doing',
        'fixed' => 'done',
        'verified' => 'done',
        'reopened' => 'open',
        'closed' => 'done',
        'rejected' => 'declined',
        'duplicate' => 'declined',
    ];

    public const BACK = [
        'open' => 'accepted',
        'question' => 'needs_information',
        'doing' => 'in_work',
        'done' => 'fixed',
        'declined' => 'rejected',
    ];

    /**
     * @param  array<string, string>  $paths   method and path, by what is said
     * @param  array<string, string>  $fields  by what goes out
     * @param  array<string, string>  $answers by what comes in
     * @param  array<string, string>  $states  what ours are called there
     * @param  array<string, string>  $back    what theirs are here
     * @param  array<string, string>  $headers beside the usual ones; `{token}` is the token
     */
    private function __construct(
        public array $paths,
        public array $fields,
        public array $answers,
        public array $states,
        public array $back,
        public array $headers,
    ) {}

    /**
     * @param  array<array-key, mixed>  $stored what is missing is as the tracker that ships takes it
     */
    public static function fromArray(array $stored): self
    {
        return new self(
            self::usual($stored, 'paths', self::PATHS),
            self::usual($stored, 'fields', self::FIELDS),
            self::usual($stored, 'answers', self::ANSWERS),
            self::usual($stored, 'states', self::STATES),
            isset($stored['back']) ? self::texts($stored, 'back') : self::BACK,
            isset($stored['headers']) ? self::texts($stored, 'headers') : ['Authorization' => 'Bearer {token}'],
        );
    }

    /**
     * @param  array<array-key, mixed>  $stored
     * @param  array<string, string>  $usual
     *
     * @return array<string, string> just those that there usually are
     */
    private static function usual(array $stored, string $part, array $usual): array
    {
        return [...$usual, ...array_intersect_key(array_filter(self::texts($stored, $part)), $usual)];
    }

    /**
     * @param  array<array-key, mixed>  $stored
     *
     * @return array<string, string>
     */
    private static function texts(array $stored, string $part): array
    {
        $texts = [];
        foreach (\is_array($stored[$part] ?? null) ? $stored[$part] : [] as $name => $text) {
            if (\is_string($name) && '' !== $name && \is_string($text)) {
                $texts[$name] = $text;
            }
        }

        return $texts;
    }

    /**
     * @return array<string, array<string, string>>
     */
    public function toArray(): array
    {
        return [
            'paths' => $this->paths,
            'fields' => $this->fields,
            'answers' => $this->answers,
            'states' => $this->states,
            'back' => $this->back,
            'headers' => $this->headers,
        ];
    }

    /**
     * @param  key-of<self::PATHS>  $act
     * @param  array<string, string>  $values of what stands in braces
     *
     * @return array{string, string} method and path
     */
    public function request(string $act, array $values = []): array
    {
        [$method, $path] = [...explode(' ', $this->paths[$act], 2), ''];
        $path = (string) preg_replace_callback('/\{(\w+)\}/', static fn(array $m): string => rawurlencode($values[$m[1]] ?? ''), $path);

        return [strtoupper($method), $path];
    }

    /**
     * What an answer says.
     *
     * @param  key-of<self::ANSWERS>  $what
     * @param  array<array-key, mixed>  $answer
     *
     * @return string|list<mixed> empty where nothing stands there
     */
    public function read(string $what, array $answer): string|array
    {
        $at = $answer;
        foreach (explode('.', $this->answers[$what]) as $name) {
            $at = \is_array($at) ? $at[$name] ?? null : null;
        }

        return match (true) {
            \is_array($at) && array_is_list($at) => $at,
            \is_scalar($at) => (string) $at,
            default => '',
        };
    }

    public function outside(DefectState $state): string
    {
        return $this->states[$state->value] ?? '';
    }

    /**
     * What one of theirs is here; null: nothing of ours.
     */
    public function ours(string $state): ?DefectState
    {
        return DefectState::tryFrom($this->back[$state] ?? '');
    }
}
