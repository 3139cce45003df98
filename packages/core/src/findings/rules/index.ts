/** Rules, by the code of what they find. Made by scripts/registries.mjs from the files of this folder. */
import { rule as addressRewritten } from './address-rewritten.ts'
import { rule as assetMissing } from './asset-missing.ts'
import { rule as baseAddress } from './base-address.ts'
import { rule as brieflyCurrent } from './briefly-current.ts'
import { rule as builtByScripts } from './built-by-scripts.ts'
import { rule as estimateWrong } from './estimate-wrong.ts'
import { rule as formerClash } from './former-clash.ts'
import { rule as headerShrinks } from './header-shrinks.ts'
import { rule as headerTall } from './header-tall.ts'
import { rule as headingMissing } from './heading-missing.ts'
import { rule as idCase } from './id-case.ts'
import { rule as idCharacter } from './id-character.ts'
import { rule as idDuplicate } from './id-duplicate.ts'
import { rule as idEmpty } from './id-empty.ts'
import { rule as idHash } from './id-hash.ts'
import { rule as idInUse } from './id-in-use.ts'
import { rule as idReserved } from './id-reserved.ts'
import { rule as idSelector } from './id-selector.ts'
import { rule as idShadow } from './id-shadow.ts'
import { rule as idSpace } from './id-space.ts'
import { rule as itemLikely } from './item-likely.ts'
import { rule as itemNowhere } from './item-nowhere.ts'
import { rule as itemSize } from './item-size.ts'
import { rule as itemUnwritten } from './item-unwritten.ts'
import { rule as labelTwice } from './label-twice.ts'
import { rule as liesSideways } from './lies-sideways.ts'
import { rule as linkBroken } from './link-broken.ts'
import { rule as linkCase } from './link-case.ts'
import { rule as linkDrifts } from './link-drifts.ts'
import { rule as linkElsewhere } from './link-elsewhere.ts'
import { rule as linkLeaves } from './link-leaves.ts'
import { rule as linkPlaceholder } from './link-placeholder.ts'
import { rule as linkTried } from './link-tried.ts'
import { rule as menuContrast } from './menu-contrast.ts'
import { rule as menuCovers } from './menu-covers.ts'
import { rule as menuLeftOpen } from './menu-left-open.ts'
import { rule as menuOfButtons } from './menu-of-buttons.ts'
import { rule as menuOrder } from './menu-order.ts'
import { rule as neverCurrent } from './never-current.ts'
import { rule as notMeasured } from './not-measured.ts'
import { rule as orderOfPage } from './order-of-page.ts'
import { rule as overlayBlocks } from './overlay-blocks.ts'
import { rule as pictureUnsized } from './picture-unsized.ts'
import { rule as policyBlocks } from './policy-blocks.ts'
import { rule as pressesTaken } from './presses-taken.ts'
import { rule as scrollHeld } from './scroll-held.ts'
import { rule as scrollsInside } from './scrolls-inside.ts'
import { rule as sectionEmpty } from './section-empty.ts'
import { rule as sectionHidden } from './section-hidden.ts'
import { rule as serviceWorker } from './service-worker.ts'
import { rule as targetShifted } from './target-shifted.ts'
import { rule as targetTwice } from './target-twice.ts'
import { rule as viewportFixed } from './viewport-fixed.ts'

export const rules = {
  'address-rewritten': addressRewritten,
  'asset-missing': assetMissing,
  'base-address': baseAddress,
  'briefly-current': brieflyCurrent,
  'built-by-scripts': builtByScripts,
  'estimate-wrong': estimateWrong,
  'former-clash': formerClash,
  'header-shrinks': headerShrinks,
  'header-tall': headerTall,
  'heading-missing': headingMissing,
  'id-case': idCase,
  'id-character': idCharacter,
  'id-duplicate': idDuplicate,
  'id-empty': idEmpty,
  'id-hash': idHash,
  'id-in-use': idInUse,
  'id-reserved': idReserved,
  'id-selector': idSelector,
  'id-shadow': idShadow,
  'id-space': idSpace,
  'item-likely': itemLikely,
  'item-nowhere': itemNowhere,
  'item-size': itemSize,
  'item-unwritten': itemUnwritten,
  'label-twice': labelTwice,
  'lies-sideways': liesSideways,
  'link-broken': linkBroken,
  'link-case': linkCase,
  'link-drifts': linkDrifts,
  'link-elsewhere': linkElsewhere,
  'link-leaves': linkLeaves,
  'link-placeholder': linkPlaceholder,
  'link-tried': linkTried,
  'menu-contrast': menuContrast,
  'menu-covers': menuCovers,
  'menu-left-open': menuLeftOpen,
  'menu-of-buttons': menuOfButtons,
  'menu-order': menuOrder,
  'never-current': neverCurrent,
  'not-measured': notMeasured,
  'order-of-page': orderOfPage,
  'overlay-blocks': overlayBlocks,
  'picture-unsized': pictureUnsized,
  'policy-blocks': policyBlocks,
  'presses-taken': pressesTaken,
  'scroll-held': scrollHeld,
  'scrolls-inside': scrollsInside,
  'section-empty': sectionEmpty,
  'section-hidden': sectionHidden,
  'service-worker': serviceWorker,
  'target-shifted': targetShifted,
  'target-twice': targetTwice,
  'viewport-fixed': viewportFixed,
}
