module Mailing
  # The short letters about a meeting, each with its subject and words; `Note` gives them their form.
  module Letters
    ANSWER = "Answer, without signing in"

    module_function

    # To who is asked to come to one meeting instead of somebody, or besides everybody else.
    # @param at [String] the moment on their own wall
    # @param whom [String, nil] whom they come instead of
    # @param location [String, nil]; call [Core::Invitation::Call, nil]
    # @param on [Boolean] whether it has begun; again [Boolean] whether they were asked before, and something is
    #   otherwise now
    def asked_to_one(title:, keeper:, at:, url:, location:, call:, whom: nil, on: false, again: false)
      said = whom ? "#{whom} asks you to come instead to “#{title}”, kept by #{keeper}." :
        "#{keeper} asks you to come to “#{title}” this once."
      said = "Something has changed about “#{title}”, to which you are asked. This is how it is now." if again
      subject = again ? "Changed" : (whom && "Instead of #{whom}") || "Invitation"
      words = [said, [(ON if on), at, location].compact.join("\n")].join("\n\n")
      note(subject, title, words, [ANSWER, url], join: Join.new(call))
    end

    ON = "This is happening now."

    # To who has sent somebody else, who cannot.
    # @param at [String] the moment on their own wall
    def substitute_cannot(title:, name:, at:, url:)
      said = "#{name} cannot come to “#{title}” on #{at} instead of you. Come yourself, or ask somebody else."
      note("#{name} cannot come", title, said, ["Come, or ask somebody else", url])
    end

    # To who need not come to that one meeting after all.
    def not_asked_to_one(title:, at:, whom: nil)
      note("You need not come", title, "You need not come to “#{title}” on #{at}.")
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
      note("You have a seat", title, "A seat has become free: you have one at “#{title}”. It is on #{at}.",
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
    # @param stays_at [String] when the meeting is
    def time_declined(title:, keeper:, offered:, stays_at:)
      note("Stays as it is", title,
        "#{keeper} thanks you for offering #{offered} for “#{title}”. The meeting stays on #{stays_at}.")
    end

    # To whoever keeps a series that somebody has left by themselves.
    def left(title:, name:, url:, word: nil)
      said = "#{name} has left “#{title}” and is not asked any more."
      Note.parts("#{name} has left: #{title}", title, [said, word && "“#{word}”"].compact.join("\n\n"),
        ["The series", url])
    end

    # To whoever has left, with the calendar object that takes it out.
    def you_left(title:, keeper:)
      note("You have left", title,
        "You have left “#{title}”. #{keeper} knows. This mail takes it out of your calendar.")
    end

    # To somebody who keeps or chairs a series from now on, or no longer.
    # @param part [String] keeper or chair; by [String] who has settled it
    # @param to [String, nil] who does it now; nil: the reader
    def handed_over(title:, part:, by:, url:, to: nil)
      verb = (part == "chair") ? "chair" : "keep"
      said = to ? "#{to} #{verb}s “#{title}” from now on, in your place. #{by} has settled it." :
        "#{by} has made you #{part} of “#{title}”: you #{verb} it from now on."
      note(to ? "Handed over" : "You #{verb} it now", title, said, ["The series", url])
    end

    TOPIC = {
      "take" => ["On the agenda", "is on the agenda"], "put_off" => ["Put off", "is put off to a later meeting"],
      "decline" => ["Not on the agenda", "is not taken up"]
    }.freeze

    # To who has brought a topic.
    # @param answer [String] take, put_off or decline; word [String, nil] of who answered
    def topic_answered(title:, topic:, answer:, at:, url:, word: nil)
      subject, said = TOPIC.fetch(answer)
      moment = "\n\n“#{title}”, #{at}" unless answer == "decline"
      note(subject, topic, ["Your topic “#{topic}” #{said}.#{moment}", word && "“#{word}”"].compact.join("\n\n"),
        ["The sheet", url])
    end

    # To who brings a topic that there is no time for.
    def in_writing(title:, topic:, at:, url:)
      said = "There is no time to speak about “#{topic}” at “#{title}”, #{at}. Please write what there is to say " \
        "under the topic; it is taken as read then."
      note("In writing", topic, said, ["Write it on the sheet", url])
    end

    # To all who may bring one.
    def topics_asked(title:, keeper:, at:, url:)
      note("Topics wanted", title, "#{keeper} asks for topics for “#{title}”, #{at}.", ["Bring a topic", url])
    end

    # To the keeper, two days before.
    def nothing_on_it(title:, at:, url:)
      said = "Nothing is on the agenda of “#{title}”, #{at}: no topic, no action that is due, and nobody has asked " \
        "for anything. You may call it off, or ask for topics."
      note("Nothing on it", title, said, ["The sheet", url])
    end

    # The address of a calendar of all one's meetings.
    def calendar_address(url:)
      said = "Add this address to your calendar program, and all your meetings stand there and stay right. Keep it " \
        "to yourself: who has it sees them."
      Note.parts("Your meetings as a calendar", "Your meetings as a calendar", said,
        ["Your calendar", url])
    end

    # A text message before a meeting: title, time and where; a link only where there is a call.
    # @param call [#url, #dial_in, nil]
    # @return [String] one line
    def text_reminder(title:, at:, location:, call:)
      online = call && (call.url || "dial #{call.dial_in}")
      parts = [Core::Words.shorten(title, 60), at, location && Core::Words.shorten(location, 60), online]
      parts.compact.join(", ").gsub(/[[:cntrl:]]+/, " ")
    end

    # To somebody with a time of their own within a meeting.
    # @param kind [Symbol] :request or :cancel
    # @param location, call as for asked_to_one; was [String, nil] the moment they were told before
    def own_time(kind:, title:, keeper:, at:, length_min:, location:, call:, was: nil)
      if kind == :cancel
        return note("You need not come", title, "#{keeper} does not need you at “#{title}” on #{at} any more.")
      end

      when_and_where = ["Your time is #{at}, for #{length_min} minutes.", location].compact.join("\n")
      opening = was && "Your time at “#{title}” is another now, instead of #{was}."
      opening ||= "#{keeper} asks you to come to “#{title}”."
      said = "#{opening}\n\n#{when_and_where}\n\nPlease be there a little before. " \
        "You wait at the door until you are let in."
      note(was ? "Another time" : "Invitation", title, said, join: Join.new(call))
    end

    # To who waits for their time, when it gets later or is as planned again.
    def later(title:, at:, late_min:)
      said = late_min.positive? ? "“#{title}” runs #{late_min} minutes late." : "“#{title}” is in time again."
      note(late_min.positive? ? "A little later" : "In time again", title, "#{said} Your time is #{at} now.")
    end

    # To whoever looks after a place.
    # @param from, to, at [String] when it is wanted, with set-up and run-over; when the meeting begins
    # @param again [Boolean] whether they were told of it before
    def prepare(title:, place:, items:, off:, from:, to:, at:, again:, url:)
      if off
        return note("Not wanted any more", title, "“#{title}” on #{at} does not need #{place} any more.")
      end

      said = "For “#{title}”, #{at}, please have ready in #{place}:\n#{items.map { |one| "– #{one}" }.join("\n")}\n\n" \
        "The place is wanted from #{from} to #{to}, with what must be done before and after."
      note(again ? "Changed: please have ready" : "Please have ready", "#{place}, #{title}", said,
        ["Confirm, or say no", url])
    end

    # To a guest, once before the day.
    def try_entrance(title:, at:, url:)
      said = "“#{title}” is a call, on #{at}. Please try its entrance once before: open the link on the device you " \
        "will use, and press “Try it”. It takes a moment, and nobody is disturbed."
      note("Please try the call", title, said, ["Try it", url])
    end

    # To who is asked to a meeting that is on.
    # @return [String] one line
    def text_now(title:, keeper:, call:)
      online = call && (call.url || "dial #{call.dial_in}")
      ["Now: #{Core::Words.shorten(title, 60)}", "#{keeper} asks you to come", online].compact.join(", ")
        .gsub(/[[:cntrl:]]+/, " ")
    end

    def note(subject, title, words, link = nil, **more)
      Note.parts("#{subject}: #{title}", title, words, link, **more)
    end
  end
end
