<?php

/*
 * Writes docs/access.md from the table of who may what. Usage: php ops/access.php > docs/access.md
 */

declare(strict_types=1);

require __DIR__ . '/../vendor/autoload.php';

use LucidStep\Core\Access\Access;

echo "# Who may what\n\n",
    "Made by `php ops/access.php` from `core/Access/Access`, which every policy and every operation of the API asks.\n\n",
    Access::markdown(),
    <<<'MD'

    A project says three things more, on its page of people: whether readers see evidence, notes, defects and names of testers, whether
    testers write in the casebook, and whether nobody comes in without a second factor.

    Projects are made, archived and taken up again by an *owner* of the installation, who sees no project without a part in it. The last
    admin of a project and the last owner cannot leave. What one may not see answers 404; what one sees and may not do answers 403 and
    is not offered. A cycle that is still being planned is there for leads alone.

    MD;
