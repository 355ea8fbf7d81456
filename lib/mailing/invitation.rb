module Mailing
  # The mail that asks somebody to a series, or tells what has become of it: each kind with a subject, an opening and what to
  # do of its own.
  class Invitation
    ROLES = {"required" => "You are asked to come.", "optional" => "Come if you are free.", "informed" => "This is for your information; nobody waits for you."}.freeze
    ROLE_WORDS = {"required" => "must come", "optional" => "if free", "informed" => "for information"}.freeze
    SIGN_UP = {"accepted" => "I sign up", "declined" => "I cannot"}.freeze
    ANSWERS = {"accepted" => "I come", "tentative" => "I may come", "declined" => "I cannot"}.freeze
    SUBJECTS = {invited: "Invitation", changed: "Changed", brought_back: "Taking place after all", called_off: "Called off", taken_off: "You need not come", reminder: "Please answer"}.freeze
    OPENINGS = {
      invited: "%s invites you to “%s”.", changed: "%s has changed “%s”.", brought_back: "%s lets you know that “%s” takes place after all.",
      called_off: "%s has called off “%s”.", taken_off: "%s no longer asks you to come to “%s”, which goes on without you.", reminder: "%s is waiting for your answer to “%s”."
    }.freeze
    NOTHING_TO_DO = "There is nothing you need to do. This mail takes it out of your calendar."
    OFF = %i[called_off taken_off].freeze

    # @param kind [Symbol] a key of SUBJECTS
    # @param content [Core::Invitation::Content] what holds now
    # @param note [String, nil] a word for this once
    # @param wording [String, nil] what the keeper says to everybody who is invited, filled in
    # @param role_before [String, nil] the role they were last told
    # @param first [String, nil] the next meeting on the recipient's wall
    # @param url [String, nil] of the series, for who can sign in
    # @param answer_url [String, nil] the reader's own page
    # @param agenda [Hash, nil] of the next meeting, as UseCases::Agenda gives it
    # @param papers [Array<Hash>] name, size_bytes and whether it is attached
    # @param changes [Array<Hash>] label, before and after, since they were last told
    def initialize(kind:, content:, note:, keeper:, role:, first:, changes:, url:, answer_url:, options:, calendar:, wording: nil, role_before: nil, agenda: nil, papers: [])
      @kind, @content, @note, @keeper, @role, @first = kind, content, note, keeper, role, first
      @wording = wording if kind == :invited
      @changes = changes + role_change(role_before)
      @url, @answer_url, @options, @calendar, @agenda, @papers = url, answer_url, options, calendar, agenda, papers
    end

    def self.subject(kind, title) = "#{SUBJECTS.fetch(kind)}: #{title}"

    # @return [Hash] subject, text, html and calendar
    def parts = {subject: Invitation.subject(@kind, @content.title), text: text, html: html, calendar: @calendar}

    private

    def opening = format(OPENINGS.fetch(@kind), @keeper, @content.title)

    def off? = OFF.include?(@kind)

    def role_change(before)
      return [] if before.nil? || before == @role || @kind != :changed

      [{label: "You", before: ROLE_WORDS.fetch(before), after: ROLE_WORDS.fetch(@role)}]
    end

    # The keeper's words: for everybody, and for this once.
    def said = [@wording, @note].compact

    # What is wanted of the reader.
    def you
      return ROLES.fetch(@role) if @role == "informed"

      [ROLES.fetch(@role), (sign_up_words if @options.sign_up), ("No answer is needed." unless asks?), ("If you cannot, you may send somebody else." if @options.pass_on)].compact.join(" ")
    end

    def sign_up_words = "Please sign up#{", for there is room for #{@options.sign_up_limit}; who comes later waits" if @options.sign_up_limit}."

    OWN_PAGE = "Agenda, papers and dates"

    def answers = @options.sign_up ? SIGN_UP : ANSWERS

    # Whether the reader is to answer.
    def answers? = asks? && @role != "informed"

    def asks? = @options.answers_asked || @options.sign_up

    # What stands now; what has changed is said in its own part.
    def facts
      return [["Why", (@content.ended["reason"] if @kind == :called_off && @content.ended)], ["You", NOTHING_TO_DO]].reject { |_, value| value.nil? } if off?

      [["When", @content.sentence], ["Next", @first], ["Where", @content.location], ["Call", @content.online&.to_s], ["Why", @content.purpose], ["You", you]].reject { |_, value| value.nil? }
    end

    def text
      changes = @changes.map { |change| "#{change[:label]}: #{change[:after] || "none"}#{" (was: #{change[:before]})" if change[:before]}" }
      answers = @answer_url && ["#{answers? ? "Answer" : OWN_PAGE}, without signing in:", "  #{@answer_url}"].join("\n")
      [opening, *said, (["What has changed:", *changes.map { |line| "  #{line}" }].join("\n") if changes.any?),
        facts.map { |name, value| "#{name.ljust(6)} #{value.gsub("\n", "\n       ")}" }.join("\n"), agenda_text, answers, @url && "The series, once you have signed in:\n  #{@url}"].compact.reject(&:empty?).join("\n\n") + "\n"
    end

    def html
      Html.page(@content.title, [Html.heading(@content.title), Html.soft(opening), *said.map { |words| Html.paragraph(words) }, changed, rows, agenda_html, buttons, (Html.link("Open the series", @url) if @url)].compact.join("\n"))
    end

    # What is planned and what is left over, a line each.
    def agenda_sections
      papers = [["To read", paper_lines]].reject { |_, lines| lines.empty? }
      return papers unless @agenda

      [["Left over", @agenda[:left_over].map { |action| [action[:text], *action[:owners]].join(" – ") }],
        ["Agenda of #{@agenda[:at]}", @agenda[:topics].map { |topic| ["#{topic[:title]}, #{topic[:length_min]} min", topic[:presenter]].compact.join(" – ") }]].reject { |_, lines| lines.empty? } + papers
    end

    def paper_lines = @papers.map { |paper| "#{paper[:name]}, #{paper[:attached] ? "attached" : "too large to attach: behind your private link"}" }

    def agenda_text = agenda_sections.map { |title, lines| [title, *lines.map { |line| "  #{line}" }].join("\n") }.join("\n\n").then { |text| text.empty? ? nil : text }

    def agenda_html = agenda_sections.map { |title, lines| %(<h2 style="margin:20px 0 4px;font-size:15px">#{Html.h(title)}</h2><ol style="margin:0;padding-left:20px">#{lines.map { |line| "<li>#{Html.h(line)}</li>" }.join}</ol>) }.join

    def changed
      return if @changes.empty?

      lines = @changes.map do |change|
        before = %(<del style="color:#56635D">#{Html.h(change[:before])}</del><br>) if change[:before]
        %(<tr><td style="padding:6px 16px 6px 12px;color:#56635D;vertical-align:top;white-space:nowrap;width:1%">#{Html.h(change[:label])}</td><td style="padding:6px 12px 6px 0">#{before}<ins style="text-decoration:none;font-weight:bold">#{Html.h(change[:after] || "none")}</ins></td></tr>)
      end
      %(<table style="border-collapse:collapse;width:100%;background:#FFF4D2;margin:0 0 14px">#{lines.join}</table>)
    end

    def rows
      %(<table style="border-collapse:collapse">#{facts.map { |name, value| %(<tr><td style="padding:3px 16px 3px 0;color:#56635D;vertical-align:top">#{name}</td><td style="padding:3px 0">#{Html.lines(value)}</td></tr>) }.join}</table>)
    end

    # The links only open the page with that answer chosen: mail scanners follow links, so a person presses there.
    def buttons
      return unless @answer_url
      return Html.link(OWN_PAGE, @answer_url) unless answers?

      links = answers.map { |answer, words| %(<a href="#{Html.h(@answer_url)}?answer=#{answer}" style="display:inline-block;margin:0 8px 0 0;padding:7px 14px;border:1px solid #14524A;border-radius:6px;color:#14524A;text-decoration:none">#{words}</a>) }
      %(<p style="margin:18px 0 0">#{links.join}</p>)
    end
  end
end
