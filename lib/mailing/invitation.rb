module Mailing
  # The mail that asks somebody to a series, tells what has changed, or that they need not come any more.
  class Invitation
    ROLES = {"required" => "You are asked to come.", "optional" => "Come if you are free.", "informed" => "This is for your information; nobody waits for you."}.freeze
    SIGN_UP = {"accepted" => "I sign up", "declined" => "I cannot"}.freeze
    ANSWERS = {"accepted" => "I come", "tentative" => "I may come", "declined" => "I cannot"}.freeze

    # @param kind [Symbol] :request, :cancel or :reminder
    # @param content [Core::Invitation::Content] what holds now
    # @param first [String, nil] the next meeting on the recipient's wall
    # @param agenda [Hash, nil] of the next meeting, as UseCases::Agenda gives it
    # @param papers [Array<Hash>] name, size_bytes and whether it is attached
    # @param changes [Array<Hash>] label, before and after, since they were last told
    def initialize(kind:, content:, note:, keeper:, role:, first:, changes:, told_before:, url:, answer_url:, options:, calendar:, agenda: nil, papers: [])
      @kind, @content, @note, @keeper, @role, @first = kind, content, note, keeper, role, first
      @changes, @told_before, @url, @answer_url, @options, @calendar, @agenda, @papers = changes, told_before, url, answer_url, options, calendar, agenda, papers
    end

    # @param told_before whether they have been told of it before
    def self.subject(kind, told_before, title)
      word = {cancel: "Called off", reminder: "Please answer"}.fetch(kind) { told_before ? "Changed" : "Invitation" }
      "#{word}: #{title}"
    end

    # @return [Hash] subject, text, html and calendar
    def parts = {subject: Invitation.subject(@kind, @told_before, @content.title), text: text, html: html, calendar: @calendar}

    private

    def opening
      case @kind
      when :cancel then @content.start ? "#{@keeper} has taken you off “#{@content.title}”. You need not come any more." : "#{@keeper} has called off “#{@content.title}”."
      when :reminder then "#{@keeper} waits for your answer to “#{@content.title}”."
      else @told_before ? "#{@keeper} has changed “#{@content.title}”." : "#{@keeper} invites you to “#{@content.title}”."
      end
    end

    # What is wanted of the reader.
    def you
      return ROLES.fetch(@role) if @role == "informed"

      [ROLES.fetch(@role), (sign_up_words if @options.sign_up), ("No answer is needed." unless asks?), ("If you cannot, you may send somebody else." if @options.pass_on)].compact.join(" ")
    end

    def sign_up_words = "Please sign up#{", for there is room for #{@options.sign_up_limit}; who comes later waits" if @options.sign_up_limit}."

    def answers = @options.sign_up ? SIGN_UP : ANSWERS

    def asks? = @options.answers_asked || @options.sign_up

    # What stands now; what has changed is said in its own part.
    def facts
      return [] if @kind == :cancel

      [["When", @content.run.sentence], ["Next", @first], ["Where", @content.location], ["Call", @content.online&.to_s], ["Why", @content.purpose], ["You", you]].reject { |_, value| value.nil? }
    end

    def text
      changes = @changes.map { |change| "#{change[:label]}: #{change[:after] || "none"}#{" (was: #{change[:before]})" if change[:before]}" }
      answers = @answer_url && [asks? ? "Answer, without signing in:" : "Papers and dates, without signing in:", "  #{@answer_url}"].join("\n")
      [opening, @note, (["What has changed:", *changes.map { |line| "  #{line}" }].join("\n") if changes.any?),
        facts.map { |name, value| "#{name.ljust(6)} #{value.gsub("\n", "\n       ")}" }.join("\n"), agenda_text, answers, @url].compact.reject(&:empty?).join("\n\n") + "\n"
    end

    def html
      Html.page(@content.title, [Html.heading(@content.title), Html.soft(opening), (Html.paragraph(@note) if @note), changed, rows, agenda_html, buttons, Html.link("Open the series", @url)].compact.join("\n"))
    end

    # What is planned and what is left over, a line each.
    def agenda_sections
      papers = [["To read", paper_lines]].reject { |_, lines| lines.empty? }
      return papers unless @agenda && @kind != :cancel

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
      return Html.link("Papers and dates", @answer_url) unless asks?

      links = answers.map { |answer, words| %(<a href="#{Html.h(@answer_url)}?answer=#{answer}" style="display:inline-block;margin:0 8px 0 0;padding:7px 14px;border:1px solid #14524A;border-radius:6px;color:#14524A;text-decoration:none">#{words}</a>) }
      %(<p style="margin:18px 0 0">#{links.join}</p>)
    end
  end
end
