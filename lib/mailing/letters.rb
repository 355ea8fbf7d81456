module Mailing
  # The short letters about a meeting, each with its subject and words; `Note` gives them their form.
  module Letters
    ANSWER = "Answer, without signing in"

    module_function

    # To who is asked to come to one meeting instead of somebody, or besides everybody else.
    # @param at [String] the moment on their own wall
    # @param whom [String, nil] whom they come instead of
    # @param where [Array<String>] room and call, as far as there are
    def asked_to_one(title:, keeper:, at:, url:, where:, whom: nil)
      said = whom ? "#{whom} asks you to come instead to “#{title}”, kept by #{keeper}." :
        "#{keeper} asks you to come to “#{title}” this once."
      subject = whom ? "Instead of #{whom}" : "Invitation"
      note(subject, title, "#{said}\n\n#{at}\n#{where.join("\n")}".strip, [ANSWER, url])
    end

    # To who need not come to that one meeting after all.
    def not_asked_to_one(title:, at:, whom: nil)
      note(whom ? "Called off" : "You need not come", title, "You need not come to “#{title}” on #{at}.")
    end

    # To somebody who has signed up for a meeting that is full.
    # @param limit, place [Integer] how many there may be, and who they are of those who wait
    def waiting(title:, at:, url:, limit:, place:)
      said = "All #{limit} places at “#{title}” are taken. You are number #{place} of those who wait, and hear of it " \
        "when a place becomes free. It is on #{at}."
      note("You are waiting", title, said, ["Your answer", url])
    end

    # To somebody who moves up to a place.
    def place_free(title:, at:, url:)
      note("You have a place", title, "A place has become free: you have one at “#{title}”. It is on #{at}.",
        ["Your answer", url])
    end

    # To the keeper: somebody offers another time.
    # @param offered, now_at [String] moments on the keeper's wall
    def time_offered(title:, name:, offered:, now_at:, url:, word: nil)
      said = "#{name} offers #{offered} for “#{title}”, instead of #{now_at}."
      Note.parts("#{name} offers another time: #{title}", title, [said, word && "“#{word}”"].compact.join("\n\n"),
        ["Take it or turn it down", url])
    end

    # To who has offered one, when the meeting stays where it is.
    def time_declined(title:, keeper:, offered:)
      note("Stays as it is", title,
        "#{keeper} thanks you for offering #{offered} for “#{title}”. The meeting stays where it is.")
    end

    # The address of a calendar of all one's meetings.
    def calendar_address(url:)
      said = "Add this address to your calendar program, and all your meetings stand there and stay right. Keep it " \
        "to yourself: who has it sees them."
      Note.parts("Your meetings as a calendar", "Your meetings as a calendar", said, [url, url])
    end

    # A text message before a meeting: title, time and where; a link only where there is a call.
    # @param call [#url, #dial_in, nil]
    # @return [String] one line
    def text_reminder(title:, at:, location:, call:)
      online = call && (call.url || "dial #{call.dial_in}")
      parts = [Core::Words.shorten(title, 60), at, location && Core::Words.shorten(location, 60), online]
      parts.compact.join(", ").gsub(/[[:cntrl:]]+/, " ")
    end

    def note(subject, title, words, link = nil) = Note.parts("#{subject}: #{title}", title, words, link)
  end
end
