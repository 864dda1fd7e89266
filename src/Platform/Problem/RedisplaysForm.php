<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Problem;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/** A controller that shows its page again with all input and its problems. */
interface RedisplaysForm
{
    public function showAgain(Request $request, Problem $problem): Response;
}
