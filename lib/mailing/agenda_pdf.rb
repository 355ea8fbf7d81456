module Mailing
  # An agenda on paper.
  class AgendaPdf
    SOFT = PaperSheet::SOFT
    PURPOSES = {"information" => "for information", "decision" => "for decision"}.freeze

    # @param agenda [Hash] as Loading::Agenda gives it
    # @param marks [Hash{String => String}] what is new or has moved, by topic
    def initialize(agenda, marks: {})
      @agenda, @marks = agenda, marks
    end

    # @return [String] the PDF
    def to_s
      pdf = PaperSheet.new(@agenda[:title], size: 10.5)
      head(pdf)
      section(pdf, "Left over", left_over)
      section(pdf, "Agenda", topics)
      pdf.render
    end

    private

    def left_over
      @agenda[:left_over].map do |action|
        [action[:text], [*action[:owners], (age(action) if action[:carried].positive?)].compact.join(", ")]
      end
    end

    def topics
      @agenda[:topics].map do |topic|
        length = topic[:in_writing] ? "in writing" : "#{topic[:length_min]} min"
        about = [topic[:presenter], length, PURPOSES[topic[:purpose]], @marks[topic[:id]]].compact.join(", ")
        ["#{topic[:number]}  #{topic[:title]}", about, topic[:text]]
      end
    end

    def age(action) = "carried #{(action[:carried] == 1) ? "once" : "#{action[:carried]} times"}"

    def head(pdf)
      pdf.element(:H1) { pdf.text @agenda[:title], size: 20, style: :bold }
      pdf.element(:P) { pdf.text [@agenda[:at], @agenda[:location]].compact.join(" · "), color: SOFT }
      pdf.move_down 18
    end

    def section(pdf, title, rows)
      return if rows.empty?

      pdf.element(:H2) { pdf.text title, size: 13, style: :bold }
      rows.each do |words, about, beneath|
        pdf.move_down 5
        pdf.element(:P) { pdf.text words }
        pdf.element(:P) { pdf.text about, size: 8.5, color: SOFT } unless about.empty?
        pdf.element(:P) { pdf.text beneath, size: 9.5 } if beneath
      end
      pdf.move_down 18
    end
  end
end
