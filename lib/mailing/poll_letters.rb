module Mailing
  # The letters of a poll, each with its subject and words.
  module PollLetters
    ANSWER = "Answer, without signing in"

    module_function

    # To somebody asked.
    # @param times [Array<String>] on their own wall; until_at [String] the deadline there
    # @param moves [Array(String, String), nil] the meeting that is to move: its title, and when it is now on that wall
    def ask(title:, keeper:, length_min:, until_at:, url:, times:, words: nil, moves: nil)
      said = "#{keeper} asks which of these times suit you for “#{title}”, #{length_min} minutes:\n#{bullets(times)}"
      moving = moves && "It is to take the place of “#{moves.first}” on #{moves.last}, which moves."
      note("Which times suit you", title, [said, moving, words, deadline(until_at)].compact.join("\n\n"),
        [ANSWER, url])
    end

    # To who has answered by the shared link, with this address: it counts once they say so here.
    def prove(title:, keeper:, length_min:, until_at:, url:)
      said = "Somebody, most likely you, has answered with this address which times suit for “#{title}”, " \
        "#{length_min} minutes, asked by #{keeper}. It counts once you confirm it. If it was not you, do nothing."
      note("Please confirm your answer", title, "#{said}\n\n#{deadline(until_at)}", ["Look at it and confirm it", url])
    end

    # To who has a link of their own already.
    def own_link(title:, keeper:, length_min:, until_at:, url:)
      said = "Somebody, most likely you, has given this address where #{keeper} asks which times suit for " \
        "“#{title}”, #{length_min} minutes. You have a link of your own, and only what is answered by it counts for " \
        "you."
      note("Your own link", title, "#{said}\n\n#{deadline(until_at)}", [ANSWER, url])
    end

    # To who has answered, for what is new alone.
    def more(title:, keeper:, length_min:, until_at:, url:, times:)
      said = "#{keeper} has added to the times for “#{title}”, #{length_min} minutes:\n#{bullets(times)}\n\n" \
        "Your other answers stand."
      note("Another time", title, "#{said}\n\n#{deadline(until_at)}", [ANSWER, url])
    end

    # To who has said nothing.
    def remind(title:, keeper:, length_min:, until_at:, url:)
      said = "#{keeper} would like to know which times suit you for “#{title}”, #{length_min} minutes."
      note("Still asked", title, "#{said}\n\n#{deadline(until_at)}", [ANSWER, url])
    end

    # When it ends without a time.
    def closed(title:, keeper:, word: nil)
      said = "#{keeper} has closed the question of times for “#{title}” without choosing one."
      note("No time", title, [said, word && "“#{word}”", "Thank you for answering."].compact.join("\n\n"))
    end

    # To who was asked, and is not invited.
    def not_invited(title:, keeper:, at:)
      note("Settled", title, "“#{title}” is on #{at}. #{keeper} does not need you there; thank you for answering.")
    end

    # To whoever keeps it: an answer.
    # @param said [Array<String>] a line for each time
    def answered(title:, name:, said:, url:, comment: nil)
      parts = ["#{name} has answered:\n#{bullets(said)}", comment && "“#{comment}”"]
      Note.parts("#{name} has answered: #{title}", title, parts.compact.join("\n\n"), ["All answers", url])
    end

    # How it went, when all have answered or the deadline has come.
    # @param answered, silent [Array<String>] names; lines [Array<String>] the times, best first
    # @param over [Boolean] whether the deadline has come
    def result(title:, answered:, silent:, lines:, url:, over: false)
      parts = [("The time to answer is over." if over),
        "#{answered.size} of #{answered.size + silent.size} have answered#{listed(answered)}.",
        ("Nothing has come#{listed(silent).sub(":", " from")}." if silent.any?)]
      note(over ? "Time is up" : "All answers", title, "#{parts.compact.join(" ")}\n\n#{bullets(lines)}",
        ["Choose the time", url])
    end

    # So many names are said.
    MOST_NAMED = 12

    def listed(names)
      return "" if names.empty?

      rest = names.size - MOST_NAMED
      said = rest.positive? ? [*names.first(MOST_NAMED), "#{rest} others"] : names
      ": #{Core::Words.list(said)}"
    end

    # To whoever keeps it, when it has settled by itself.
    def settled(title:, name:, at:, url:)
      note("Settled", title, "#{at} suits #{name}. The meeting is made, and the invitation is on its way.",
        ["The meeting", url])
    end

    # When it could not settle by itself.
    def unsettled(title:, name:, at:, why:, url:)
      note("Please settle it", title, "#{at} suits #{name}, but the meeting could not be made: #{why}",
        ["Choose the time", url])
    end

    def deadline(until_at) = "Please answer until #{until_at}. You can change your answer until then."

    def bullets(lines) = lines.map { |line| "– #{line}" }.join("\n")

    def note(subject, title, words, link = nil) = Note.parts("#{subject}: #{title}", title, words, link)
  end
end
