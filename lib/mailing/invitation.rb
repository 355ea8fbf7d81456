module Mailing
  # The mail that asks somebody to a series, or tells what has become of it: each kind with a subject, a first sentence
  # and what to do of its own.
  class Invitation
    ROLES = {"required" => "You are asked to come.", "optional" => "Come if you are free.",
             "informed" => "This is for your information; nobody waits for you."}.freeze
    ROLE_WORDS = {"required" => "must come", "optional" => "if free", "informed" => "for information"}.freeze
    SIGN_UP = {"accepted" => "I sign up", "declined" => "I cannot"}.freeze
    ANSWERS = {"accepted" => "I come", "tentative" => "I may come", "declined" => "I cannot"}.freeze
    SUBJECTS = {invited: "Invitation", changed: "Changed", brought_back: "Taking place after all",
                called_off: "Called off", taken_off: "You need not come", reminder: "Please answer"}.freeze
    FIRST_SENTENCES = {
      invited: "%s invites you to “%s”.", changed: "%s has changed “%s”.",
      brought_back: "%s lets you know that “%s” takes place after all.", called_off: "%s has called off “%s”.",
      taken_off: "%s no longer asks you to come to “%s”, which goes on without you.",
      reminder: "%s is waiting for your answer to “%s”."
    }.freeze
    NOTHING_TO_DO = "There is nothing you need to do. This mail takes it out of your calendar."
    RECORDED = "This call is recorded."
    # Why it comes once more, where it does so by itself.
    WHYS = {
      "asked" => "You have asked for this invitation once more. It is as it was sent last.",
      "number" => "The number to dial into the call is there now. All else is as you know it.",
      "address" => "An earlier mail to you did not arrive. This is what it said."
    }.freeze
    OFF = %i[called_off taken_off].freeze

    # @param kind [Symbol] a key of SUBJECTS
    # @param content [Core::Invitation::Content] what holds now
    # @param note [String, nil] a word for this once
    # @param wording [String, nil] what the keeper says to everybody who is invited, filled in
    # @param role_before [String, nil] the role they were last told
    # @param first [String, nil] the next meeting on the recipient's wall
    # @param url [String, nil] of the series, for who can sign in
    # @param answer_url [String, nil] the reader's own page
    # @param agenda [Hash, nil] of the next meeting, as Loading::Agenda gives it
    # @param records [Boolean] whether the call is recorded
    # @param papers [Array<Hash>] name, size_bytes and whether it is attached
    # @param changes [Array<Hash>] label, before and after, since they were last told
    # @param from [Time] what lies before is not spoken of
    # @param own [Boolean] whether the reader keeps the series, and has done this themselves
    # @param deed [Array(String, String), nil] who has booked, moved or given back the time, where it is a booking
    # @param own_page [String] what the reader's own page is called
    # @param pasted [Boolean] whether it goes another way than mail: nothing is attached, and who reads it is not known
    # @param lapsed [Array<Core::WallTime>] dates the reader had answered to, whose times have changed since
    def initialize(kind:, content:, note:, keeper:, role:, first:, changes:, url:, answer_url:, options:, calendar:,
      from:, records: false, mark: nil, wording: nil, role_before: nil, agenda: nil, papers: [], lapsed: [],
      deed: nil, own_page: nil, own: false, pasted: false)
      @own, @pasted = own, pasted
      @kind, @content, @note, @keeper, @role, @first = kind, content, note, keeper, role, first
      @from, @records, @lapsed, @deed, @own_page = from, records, lapsed, deed, own_page
      @wording = wording if kind == :invited
      @changes = changes + role_change(role_before)
      url = nil if pasted
      @url, @answer_url, @options, @calendar, @agenda, @papers = url, answer_url, options, calendar, agenda, papers
    end

    def self.subject(kind, title) = "#{SUBJECTS.fetch(kind)}: #{title}"

    # @return [Hash] subject, text, html and calendar
    def parts = {subject: subject, text: text, html: html, calendar: @calendar}

    private

    def subject
      (@deed&.last == "given_back") ? "Given back: #{@content.title}" : Invitation.subject(@kind, @content.title)
    end

    DEEDS = {
      "booked" => "%s has booked “%s”.", "moved" => "%s has moved “%s”.", "given_back" => "%s has given “%s” back."
    }.freeze
    # To whoever keeps the series, and wants mail about it too.
    OWN_DEEDS = {
      invited: "You invite to “%s”; this is what the others have.", changed: "You have changed “%s”.",
      brought_back: "You let it be known that “%s” takes place after all.", called_off: "You have called off “%s”."
    }.freeze
    private_constant :DEEDS, :OWN_DEEDS

    def first_sentence
      return format(DEEDS.fetch(@deed.last), @deed.first, @content.title) if @deed

      return format(OWN_DEEDS.fetch(@kind), @content.title) if @own && OWN_DEEDS.key?(@kind)

      format(FIRST_SENTENCES.fetch(@kind), @keeper, @content.title)
    end

    def off? = OFF.include?(@kind)

    def role_change(before)
      return [] if before.nil? || before == @role || @kind != :changed

      [{label: "You", before: ROLE_WORDS.fetch(before), after: ROLE_WORDS.fetch(@role)}]
    end

    # The keeper's words: for everybody, and for this once.
    def said = [@wording, @note].compact

    # What is wanted of the reader.
    def you
      return if @pasted
      return ROLES.fetch(@role) if @role == "informed"

      [ROLES.fetch(@role), (sign_up_words if @options.sign_up), ("No answer is needed." unless asks?),
        ("If you cannot, you may send somebody else." if @options.pass_on)].compact.join(" ")
    end

    def sign_up_words
      room = ", for there is room for #{@options.sign_up_limit}; who comes later waits" if @options.sign_up_limit
      "Please sign up#{room}."
    end

    OWN_PAGE = "Agenda, papers and dates"

    def page_name = @own_page || OWN_PAGE

    def answers = @options.sign_up ? SIGN_UP : ANSWERS

    # Whether the reader is to answer.
    def answers? = asks? && @role != "informed" && @own_page.nil?

    def asks? = @options.answers_asked || @options.sign_up

    # What stands now; what has changed is said in its own part.
    def facts
      facts = off? ? {"Why" => why_off, "You" => NOTHING_TO_DO} : standing
      facts.reject { |_, said| said.to_s.empty? }.to_a
    end

    def why_off = (Core::Invitation::Exceptions.new(@content, @from).why if @kind == :called_off)

    def standing
      {"When" => @content.sentence(from: @from), "Except" => @content.exceptions(from: @from).join("\n"),
       (@content.single? ? "Your time" : "Next") => @first, "Where" => @content.location, "Why" => @content.purpose,
       "You" => you}
    end

    # So many are named.
    MOST_LAPSED = 4

    # That an answer given before is worth nothing now.
    def lapsed
      return if @lapsed.empty? || off? || !answers?
      return "Your answer no longer counts, since the time has changed. Please answer again." if @content.single?

      dates = @lapsed.map { |wall| Core::Words.day(wall.date) }
      which = (dates.size > MOST_LAPSED) ? "these #{dates.size} dates" : Core::Words.list(dates)
      "Your #{dates.one? ? "answer" : "answers"} to #{which} no longer #{dates.one? ? "counts" : "count"}, since the " \
        "#{dates.one? ? "time has" : "times have"} changed. Please answer again."
    end

    def join = (Join.new(@content.online, recorded: @records) unless off?)

    def text
      changes = @changes.map { |change| change_text(**change) }
      answers = @answer_url && Note.link_text("#{answers? ? "Answer" : page_name}, without signing in", @answer_url)
      [
        first_sentence,
        *said,
        (["What has changed:", *changes.map { |line| "  #{line}" }].join("\n") if changes.any?),
        lapsed,
        facts_text,
        join&.text,
        agenda_text,
        answers,
        @url && Note.link_text("The series, once you have signed in", @url)
      ].compact.reject(&:empty?).join("\n\n") + "\n"
    end

    def facts_text
      width = [6, *facts.map { |name, _| name.size }].max
      facts.map { |name, value| "#{name.ljust(width)} #{value.gsub("\n", "\n#{" " * (width + 1)}")}" }.join("\n")
    end

    def change_text(label:, before:, after:) = "#{label}: #{after || "none"}#{" (was: #{before})" if before}"

    def html
      parts = [
        Html.heading(@content.title), Html.soft(first_sentence), *said.map { |words| Html.paragraph(words) }, changed,
        (Html.paragraph(lapsed) if lapsed), rows, join&.html, agenda_html, buttons,
        (Html.link("Open the series", @url) if @url)
      ]
      Html.page(@content.title, parts.compact.join("\n"))
    end

    # What is planned and what is left over, a line each.
    def agenda_sections
      left_over = @agenda ? @agenda[:left_over].map { |action| LeftOver.said(action) } : []
      {"Left over" => left_over, "Agenda of #{@agenda && @agenda[:at]}" => planned, "To read" => paper_lines}
        .reject { |_, lines| lines.empty? }
    end

    def planned
      topics = @agenda ? @agenda[:topics] : []
      topics.map { |topic| ["#{topic[:title]}, #{topic[:length_min]} min", topic[:presenter]].compact.join(" – ") }
    end

    def paper_lines
      return [] if @pasted

      @papers.map do |paper|
        "#{paper[:name]}, #{paper[:attached] ? "attached" : "too large to attach: behind your private link"}"
      end
    end

    def agenda_text
      sections = agenda_sections.map { |title, lines| [title, *lines.map { |line| "  #{line}" }].join("\n") }
      sections.join("\n\n") if sections.any?
    end

    def agenda_html = agenda_sections.map { |title, lines| Html.list(title, lines) }.join

    def changed
      return if @changes.empty?

      Html.changes(@changes)
    end

    def rows = Html.facts(facts)

    # The links only open the page with that answer chosen: mail scanners follow links, so a person presses there.
    def buttons
      return unless @answer_url
      return Html.link(page_name, @answer_url) unless answers?

      links = answers.map { |answer, words| Html.button(words, "#{@answer_url}?answer=#{answer}") }
      %(<p style="margin:18px 0 0">#{links.join}</p>)
    end
  end
end
