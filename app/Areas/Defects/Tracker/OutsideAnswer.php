<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Tracker;

/**
 * What an outside service answered.
 */
final readonly class OutsideAnswer
{
    public function __construct(public int $status, public string $body) {}

    /**
     * @throws TrackerRefused when it is no JSON
     * @return array<array-key, mixed>
     */
    public function json(): array
    {
        $json = json_decode($this->body, true, 32);

        return \is_array($json)
            ? $json
            : throw new TrackerRefused($this->status, 'It answered something that is no JSON. Look at the address, and send it again.');
    }

    /**
     * Its beginning, for people.
     */
    public function excerpt(int $most = 300): string
    {
        $text = trim((string) preg_replace('/\s+/u', ' ', mb_scrub($this->body, 'UTF-8')));

        return mb_strimwidth($text, 0, $most, '…');
    }
}
