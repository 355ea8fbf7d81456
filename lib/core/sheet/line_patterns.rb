module Core
  module Sheet
    # What sentences of minutes look like that decide something or give somebody work (common practice of the trade).
    module LinePatterns
      BODY = "(?:the\\s)?(?:committee|board|meeting|group|team|council|trustees|panel)"
      DECIDED = "(?:decided|agreed|resolved|approved|accepted|adopted|rejected)"
      DECISION = /
        \A(?:(?:we[ ]|it[ ]was[ ]|it[ ]is[ ]|#{BODY}[ ](?:has[ ]|have[ ])?)?(?:unanimously[ ])?#{DECIDED}
        (?:[ ]unanimously)?(?:\s*[:–—-]\s*|\s+(?=(?:that|to|not[ ]to|on|against|in[ ](?:favour|principle))\b))|
        (?:decision|resolution)\s*[:–—-]\s*)
      /ix
      # "DECIDED no lids": in capitals it says the same without a colon.
      SHOUTED = /\A(?:DECIDED|AGREED|RESOLVED)\s+/
      # What an entry of a list begins with, typed or pasted.
      BULLET = /\A(?:(?:[-–—•*·]|\d{1,2}[.)]|[a-z][.)]|\[[ x]?\])\s+)+/i
      # These are decided in their own words.
      DECISION_WHOLE = /
        \A(?:(?:the\s)?(?:motion|proposal|resolution|amendment|carried|passed)\b.*
        \b(?:carried|passed|defeated|lost|rejected)\b|
        (?:carried|passed|defeated|lost|approved|adopted)\s+(?:unanimously|nem\.?\s*con|by\s+\d|\d+\s*[–-]\s*\d+)|
        (?:approved|adopted)\s+(?:the|last|minutes)\b|#{BODY}\s+(?:has\s+|have\s+)?#{DECIDED}\b|resolved\b|
        (?:it\swas\s)?not\s+(?:agreed|approved|accepted|adopted|carried)\b|
        [^.,;:?!]{1,80}\s(?:was|were)\snot\s(?:approved|accepted|adopted|carried)\.?\z|
        (?:proposed|moved)\b[^?]*\b(?:carried|passed|defeated|lost)\.?\z|
        (?:agreed|approved|accepted|adopted|carried|rejected)\.?\z|
        (?:following|after|in)\b[^.:?]{1,80}\sit\swas\s(?:unanimously\s)?(?:agreed|decided|resolved)\s(?:that|to)\b)
      /ix
      # "Budget approved": a thing of few words and what became of it.
      APPROVED = /
        \A(?<thing>[[:upper:]][^.,;:?!]{1,80}?)\s(?:was\s|were\s|is\s|are\s)?(?:approved|adopted|accepted)
        (?:\s(?:(?:unanimously|nem\.?\scon\.?|with|subject\sto)\b[^?]*|\d+\s?[:–-]\s?\d+))?\.?\z
      /x
      NOT_APPROVED = /\b(?:not|never|nobody|has|have|had|be|been|to|will|would|who|he|she|we|they|i)\b/i
      WE_WILL = /
        \Awe(?:['’]ll|\swon['’]t|\s(?:will|shall)(?:\snot)?)\s+
        (?=(?<deed>[[:alpha:]]+)\b(?!\s(?:about|out|how|what|whether|if|when)\b))
      /ix
      WE_SEE = %w[see look talk discuss consider meet try get find].freeze
      ACTION = /
        \A(?:action(?:\s(?:point|item))?|to[ -]?do|ap|next\sstep|follow[ -]?up)\b(?:\s\#?\d{1,3})?
        (?:\s+(?:for|on|by)\b)?\s*[:–—-]?\s*
      /ix
      # "Action (Wen): …"
      BRACKETED = /\A\((?<who>[^()]{1,80})\)\s*[:–—-]\s*/
      NONE = /\A(?:none|nil|nothing|no|n\/a)\b/i
      PLEASE = /\b(?:please|pls|plz)\b/i
      EVERYONE = /
        \A(?:everyone|everybody|all)(?:\s+(?:is\s|are\s)?to\s+|(?<called>\s?:\s+)(?:#{PLEASE}\s+)?|
        (?<called>\s+)#{PLEASE}\s+)
      /ix
      SOMEONE = /
        \A(?:we\sneed\s)?(?:someone|somebody|anyone|volunteers?|tb[cda]|n\.?\s?n\.?)\s+
        (?:(?:is\s|are\s|has\s|have\s|needs?\s|ought\s)?to|should|must|will)\s+
      /ix
      WE_NEED = /\A(?:we\s+)?(?:need|have|ought)\s+to\s+/i
      # "Quotes to be obtained by Friday": what is to be done, and perhaps by whom.
      PASSIVE = /\A(?<thing>[^.,;:?!]{1,120}?)\sto\sbe\s(?<done>[[:lower:]]+)(?<rest>[^?]*)\z/
      STATES = /\b(?:is|are|was|were|has|have|had|seems?|ought|needs?|nothing|much|more|lot|it|there|still|not)\b/i
      # "Following the storm, Ines to …"
      CLAUSE = /\A(?:following|after|before|once|when|if|as soon as|because|since|subject to|pending|until)\b/i
      FIRST = /#{CLAUSE}[^,]{1,120},\s+/
      # "AOB: Wen to …", "Budget: Marit to …"
      HEADED = /\A[[:upper:]][^:.,;?!]{0,40}:\s+/
      MOST_DEEDS = 6
      # Within so many letters it is said who is asked for what.
      SOON = 160
      # Where one deed may end and somebody else's begin.
      BETWEEN = /(?<mark>[,;.])\s+(?:(?:and|then)\s+)?|\s+and\s+/
      # Who is not called by a name.
      OFFICE = /
        \A(?:the\s)?(?:(?:hon\.?\s)?(?:secretary|treasurer)|clerk|office|crew|caretaker|bosun|warden|committee|board|
        council|team|management|accounts|finance|harbour\s(?:master|office)|port|yard|school|it|hr)(?=\sto\s)
      /ix
      STRANGER = /\A[[:upper:]][[:alpha:]’'-]+(?:\s[[:upper:]][[:alpha:]’'-]+)?(?=\s(?:to|will|shall|must)\s)/
      # What stands between a name and the work.
      ASKED = /\A,?\s*(?:(?:kindly|also|then|now|both|again)\s)?(
        to|will|shall|must|should|ought\sto|has\sto|have\sto|needs?\sto|(?:is|are)\s(?:going\s)?to|
        (?:has\s|have\s)?(?:agreed|volunteered|offered|undertook|undertaken|promised)\sto|
        (?:was|were|is|are|has\sbeen|have\sbeen)\sasked\sto|agrees?\sto|volunteers?\sto
      )\s+/ix
      # "Lars asked Sunniva to …", "Ask Sunniva to …", "Please could Tomás …"
      ASKING = /\A(?:please\s+)?(?:ask|get|remind|(?:we\s)?(?:need|want))\s+/i
      POLITE = /\A(?:please,?\s+)?(?:could|can|would|will)\s+(?:you\s+)?|\A#{PLEASE},?\s+/i
      # "Ines has moved", "Ines will be away": they state, they do not ask for work.
      STATING = /
        \A(?!have\s(?:an?|the|another|his|her|their|everything|something)\b|be\s(?:the|our|an?)\b)
        (?:be|been|have|has|had|not|never|probably|only|still|already|also\sbe|now\sbe|like|need|miss|arrive)\b
      /ix
      # What follows "to" when it is a direction and not a deed.
      NO_DEED = /
        \A(?:the|a|an|his|her|their|our|my|your|its|this|that|these|those|date|him|them|us|me|no|some|both|all|
        be(?!\s(?:the|our|an?)\b)|and|\d)\b
      /ix
      BEHIND = /\s*(?:->|→|⇒)\s*|\s+[–—-]+\s+/
      OWNER = /
        [\s.;,]+(?:owner|owners|who|responsible)\s*:\s*(?<who>.+?)
        (?:[.;,]+\s*(?:due|by|when)\s*:\s*(?<due>.+?))?\.?\z
      /ix
      FIRST_WORD = /\A[[:lower:]]/
      COUNTED = {2 => "Two", 3 => "Three", 4 => "Four"}.freeze
      # "Order lids. Wen."
      NAME_ALONE = /\A(?<deed>[^.]+)\.\s(?<who>[^.]+)\.?\z/
      BEHIND_FORMS = [
        /\A(?<deed>.+?)(?:#{BEHIND})(?<who>[^–—→]+)\z/, /\A(?<deed>.+?)\s*[(\[](?<who>[^()\[\]]+)[)\]]\.?\z/,
        /\A(?<deed>.+?)\s(?=@)(?<who>[^@]*@[^@]+)\z/, /\A(?<deed>.+?)(?:#{BEHIND})(?<who>[^–—→]+\s[–—]\s[^–—→]+)\z/,
        /\A(?<deed>.+?)\s*\((?<who>[^()]+)\)\s*[,–—-]\s*(?<due>[^()]+)\z/, NAME_ALONE
      ].freeze
      PLEASE_FIRST = /\A,?\s*(?:#{PLEASE}\s+)?/
      PLEASE_OR_TO = /\A(?:#{PLEASE}|to)\s+/
      # What stands between a name and what is asked of it without a verb.
      CALLED_UPON = /\A\s*[:–—]\s*|\A\s+-\s+|\A,?\s+(?=#{PLEASE}\s)/
    end
  end
end
