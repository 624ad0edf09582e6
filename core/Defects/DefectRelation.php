<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * How one defect stands to another; each is read from both ends.
 */
enum DefectRelation: string
{
    case Under = 'under';
    case Over = 'over';
    case CausedBy = 'caused_by';
    case Causes = 'causes';
    case Blocks = 'blocks';
    case BlockedBy = 'blocked_by';
    case RelatesTo = 'relates_to';

    /**
     * The same, read from the other end.
     */
    public function inverse(): self
    {
        return match ($this) {
            self::Under => self::Over,
            self::Over => self::Under,
            self::CausedBy => self::Causes,
            self::Causes => self::CausedBy,
            self::Blocks => self::BlockedBy,
            self::BlockedBy => self::Blocks,
            self::RelatesTo => self::RelatesTo,
        };
    }

    /**
     * Whether it is kept as it is read: each pair of words is kept as one of them.
     */
    public function isKept(): bool
    {
        return match ($this) {
            self::Under, self::CausedBy, self::Blocks, self::RelatesTo => true,
            self::Over, self::Causes, self::BlockedBy => false,
        };
    }
}
