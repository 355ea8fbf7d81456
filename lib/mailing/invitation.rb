module Mailing
  # The mail that asks somebody to a series.
  class Invitation
    ROLES = {"required" => "You are asked to come.", "optional" => "Come if you are free.", "informed" => "This is for your information; nobody waits for you."}.freeze

    # @param sentence [String] the rule in words; `first` the next meeting on the recipient's wall, or nil
    # @param changed [Boolean] whether people were told before
    def initialize(title:, purpose:, place:, sentence:, note:, keeper:, recipient:, role:, first:, changed:, url:, calendar:)
      @title, @purpose, @place, @sentence, @note = title, purpose, place, sentence, note
      @keeper, @recipient, @role, @first, @changed, @url, @calendar = keeper, recipient, role, first, changed, url, calendar
    end

    # @return [Hash] subject, text, html and calendar
    def parts = {subject: "#{@changed ? "Changed" : "Invitation"}: #{@title}", text: text, html: html, calendar: @calendar}

    private

    def opening
      @changed ? "#{@keeper} has changed “#{@title}”." : "#{@keeper} invites you to “#{@title}”."
    end

    def facts
      [["When", @sentence], ["Next", @first], ["Where", @place], ["Why", @purpose], ["You", ROLES.fetch(@role)]].reject { |_, value| value.nil? }
    end

    def text
      [opening, @note, facts.map { |name, value| "#{name.ljust(6)} #{value.gsub("\n", "\n       ")}" }.join("\n"), @url].compact.join("\n\n") + "\n"
    end

    def html
      rows = facts.map { |name, value| %(<tr><td style="padding:3px 16px 3px 0;color:#56635D;vertical-align:top">#{name}</td><td style="padding:3px 0">#{Html.lines(value)}</td></tr>) }
      Html.page(@title, [Html.heading(@title), Html.soft(opening), (Html.paragraph(@note) if @note),
        %(<table style="border-collapse:collapse">#{rows.join}</table>), Html.link("Open the series", @url)].compact.join("\n"))
    end
  end
end
