<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * How much a page that is observed may report: more than a person does, and not so much that a page that floods fills a session.
 */
final readonly class ObserverBounds
{
    /** Acts that come at once. */
    public const AT_ONCE = 200;

    /** Acts of a session that are kept in a minute: more than a person does, and 20 a second of a test that clicks. */
    public const A_MINUTE = 1500;

    /** Acts that are kept of a whole session. */
    public const IN_ALL = 20_000;

    /**
     * @param  int  $minute  minutes since 1970 that are counted
     * @param  int  $inMinute acts taken in it
     * @param  int  $inAll    acts taken in all
     * @param  int  $leftOut  acts that were too many, in all
     */
    public function __construct(public int $minute = 0, public int $inMinute = 0, public int $inAll = 0, public int $leftOut = 0) {}

    /**
     * How many of so many acts are taken, and how it stands then.
     *
     * @param  int  $now ms since 1970
     *
     * @return array{int, self}
     */
    public function take(int $acts, int $now): array
    {
        $minute = intdiv($now, 60_000);
        $inMinute = $minute === $this->minute ? $this->inMinute : 0;
        $taken = max(0, min($acts, self::A_MINUTE - $inMinute, self::IN_ALL - $this->inAll));

        return [$taken, new self($minute, $inMinute + $taken, $this->inAll + $taken, $this->leftOut + $acts - $taken)];
    }
}
